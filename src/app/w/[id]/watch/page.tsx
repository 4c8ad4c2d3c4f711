import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { choicesOf, everyFit } from '@/core/cut/choices'
import { filmedFrom } from '@/core/cut/fit'
import { tryExpand } from '@/core/expand/expand'
import { evidenceOf } from '@/server/footage'
import { idFrom } from '@/server/http'
import { progressOf } from '@/server/progress'
import { listStitches } from '@/server/stitches'
import { pageTitle } from '@/server/pageTitle'
import { findWorkout } from '@/server/workouts'
import { WatchView } from '@/ui/watch/WatchView'

export const generateMetadata = ({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> =>
  pageTitle('watch', params)

export default async function WatchPage({ params }: { params: Promise<{ id: string }> }): Promise<ReactNode> {
  const workout = await findWorkout(idFrom((await params).id))
  const { footage } = await progressOf(workout.id)
  const { expansion } = tryExpand(workout.score)
  const shared = {
    id: workout.id,
    counting: { count: workout.score.count, countOf: workout.score.countOf },
    mix: workout.mix,
    wishes: workout.cut,
    planned: { totalMs: expansion?.totalMs ?? 0, estimated: expansion?.estimated ?? false },
  }
  if (footage?.state !== 'ready') return <WatchView key={workout.id} {...shared} film={null} />
  const { stitches } = await listStitches(footage.id)
  const { durationMs = 0 } = footage.facts ?? {}
  const filmed = filmedFrom(expansion?.segments ?? [], stitches, durationMs, await evidenceOf(footage.id))
  const fits = everyFit(filmed, workout.cut)
  const { cut, shown } = fits[workout.cut.fit]
  const film = { footage, cut, shown, choices: choicesOf(fits), isTied: stitches.length > 0 }
  return <WatchView key={workout.id} {...shared} film={film} />
}
