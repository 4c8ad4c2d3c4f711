// What can be done with the files of a workout, each with a way back.
'use client'
import { useRouter } from 'next/navigation'
import { useMemo } from 'react'
import { toast } from 'sonner'
import { reelTexts as words } from '@/core/words/en/reel'
import { texts } from '@/core/words/en/screens'
import type { ReelProgress } from '@/server/progress'
import { call } from '../api'

interface Named {
  id: string
  name: string
}

export interface ReelChanges {
  putAside: (footage: Named) => void
  takeBack: (footage: Named) => void
  /** Makes a file of its own out of a second camera. */
  standAlone: (footage: Named) => void
  /** @param ids of all files; null for the order in which they were filmed. */
  order: (ids: string[] | null) => void
}

export function useReelChanges(workoutId: string, { files }: ReelProgress): ReelChanges {
  const router = useRouter()
  return useMemo(() => {
    const change = async (work: () => Promise<unknown>): Promise<void> => {
      await work()
      router.refresh()
    }
    const reelOf = (footageId: string, as: 'taken' | 'aside' | 'alone') => (): Promise<unknown> =>
      call('PUT', `/api/footage/${footageId}/reel`, { as })
    const orderAs = (order: string[] | null) => (): Promise<unknown> =>
      call('PUT', `/api/workouts/${workoutId}/reel`, { order })
    const say = (text: string, work: () => Promise<unknown>, back: () => Promise<unknown>): void =>
      void change(work).then(
        () =>
          toast(text, {
            action: { label: texts.score.undo, onClick: () => void change(back).catch(complain) },
            duration: 10_000,
          }),
        complain,
      )
    const complain = (error: Error): void => void toast.error(error.message)
    const before = files.map(({ id }) => id)
    return {
      putAside: ({ id, name }) => say(words.wasPutAside(name), reelOf(id, 'aside'), reelOf(id, 'taken')),
      takeBack: ({ id, name }) => {
        // It may have taken the place of one of them, which comes back in its turn.
        const back = async (): Promise<void> => {
          await reelOf(id, 'aside')()
          for (const one of before) await reelOf(one, 'taken')()
        }
        say(words.takenBack(name), reelOf(id, 'taken'), back)
      },
      standAlone: ({ id, name }) => say(words.aloneNow(name), reelOf(id, 'alone'), reelOf(id, 'aside')),
      order: (ids) => say(words.ordered, orderAs(ids), orderAs(before)),
    }
  }, [workoutId, files, router])
}
