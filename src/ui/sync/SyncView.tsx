// Sync: the way in for footage, then the ties of the footage that the page works on, and what was put aside.
'use client'
import { useRouter } from 'next/navigation'
import { useEffect, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import type { Segment } from '@/core/score/segment'
import type { Mix } from '@/core/sound/mix'
import { texts } from '@/core/words/en/screens'
import type { FootageProgress, Progress } from '@/server/progress'
import type { Stitches } from '@/server/stitches'
import { call } from '../api'
import { ProgressLine } from '../parts/ProgressLine'
import { useProgress } from '../parts/useProgress'
import { AddFootage, ChooseFile, FailedChoices } from './AddFootage'
import { FootageMenu } from './FootageMenu'
import { Preparing, preparingOf } from './Preparing'
import { Stitching } from './Stitching'
import { useUpload } from './useUpload'

const words = texts.sync

interface Props {
  id: string
  segments: Segment[]
  progress: Progress
  /** The ties of the footage that the page was made with. */
  tied: (Stitches & { footageId: string }) | null
  mix: Mix
}

export function SyncView({ id, segments, progress: initial, tied, mix }: Props): ReactNode {
  const router = useRouter()
  const progress = useProgress(id, initial)
  const { upload, problem, send, cancel } = useUpload(id)
  const { footage, aside } = progress
  const ready = footage?.state === 'ready' && footage.facts ? footage : null
  const stale = ready !== null && tied?.footageId !== ready.id
  // Other footage has other ties: they are asked for as soon as it is in use.
  useEffect(() => {
    if (stale) router.refresh()
  }, [stale, ready?.id, router])

  /** Takes footage back into use, or puts it aside; either way with a way back. */
  const setTaken = async (footageId: string, taken: boolean): Promise<void> => {
    await call('PUT', `/api/footage/${footageId}/reel`, { taken })
    router.refresh()
  }
  const move = (target: { id: string; name: string }, taken: boolean): void => {
    const back = taken ? (ready?.id ?? null) : target.id
    void setTaken(target.id, taken).then(
      () =>
        toast(taken ? words.takenBack(target.name) : words.putAside(target.name), {
          action: back ? { label: texts.score.undo, onClick: () => void setTaken(back, true) } : undefined,
          duration: 10_000,
        }),
      (error: Error) => toast.error(error.message),
    )
  }

  /** How often captions were added: the changes are looked for again with them. */
  const [captioned, setCaptioned] = useState(0)
  const addCaptions = async (file: File): Promise<void> => {
    if (!ready) return
    const text = await file.text()
    const { calls } = await call<{ calls: number }>('PUT', `/api/footage/${ready.id}/captions`, { text })
    toast(words.captionsRead(calls))
    if (calls) setCaptioned(captioned + 1)
  }

  const menu = (
    <FootageMenu
      aside={aside}
      current={ready}
      onTake={(one) => move(one, true)}
      onPut={(one) => move(one, false)}
      onCaptions={(file) => void addCaptions(file).catch((error: Error) => toast.error(error.message))}
    />
  )
  if (!ready)
    return (
      <main id="content" tabIndex={-1} className="flex flex-1 flex-col">
        <AddFootage
          progress={progress}
          upload={upload}
          uploadProblem={problem}
          onFile={(file) => void send(file)}
          onCancel={cancel}
        >
          {aside.length > 0 && menu}
        </AddFootage>
      </main>
    )
  return (
    <main id="content" tabIndex={-1} className="flex flex-1 flex-col">
      <h1 className="sr-only">{texts.way.sync}</h1>
      <Under progress={progress} footage={ready} upload={upload} problem={problem} onCancel={cancel} />
      {!segments.length && <p className="p-10 text-lg text-quiet">{words.needScore}</p>}
      {segments.length > 0 && tied?.footageId === ready.id && (
        <Stitching
          key={ready.id}
          workoutId={id}
          segments={segments}
          footage={ready}
          tied={tied}
          captioned={captioned}
          mix={mix}
        >
          <ChooseFile plain label={words.replace} onFile={(file) => void send(file)} />
          {menu}
        </Stitching>
      )}
    </main>
  )
}

interface UnderProps {
  progress: Progress
  footage: FootageProgress
  upload: ReturnType<typeof useUpload>['upload']
  problem: string | null
  onCancel: () => void
}

/** What is under way, and what is wrong, above the work itself. */
function Under({ progress, footage, upload, problem, onCancel }: UnderProps): ReactNode {
  const preparing = preparingOf(progress.jobs)
  const failed = progress.failedUpload && `${progress.failedUpload.name}: ${progress.failedUpload.problem}`
  const trouble = problem ?? failed ?? footage.warning
  return (
    <>
      {upload && (
        <div className="px-6 pt-4">
          <ProgressLine
            label={`${words.uploading} ${upload.name}`}
            share={upload.share}
            leftMs={upload.leftMs}
            onCancel={onCancel}
          />
        </div>
      )}
      {!upload && preparing && (
        <div className="px-6 pt-4">
          <Preparing job={preparing} />
        </div>
      )}
      {trouble && (
        <div role="alert" className="flex items-baseline gap-5 border-b-2 border-rule bg-pale px-6 pt-1.5 pb-2.5">
          <p>{trouble}</p>
          {!problem && progress.failedUpload && <FailedChoices footageId={progress.failedUpload.id} />}
        </div>
      )}
    </>
  )
}
