import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { choicesOf, everyFit } from '@/core/cut/choices'
import { tryExpand } from '@/core/expand/expand'
import { idFrom } from '@/server/http'
import { progressOf } from '@/server/progress'
import { filmedOf, reelOf } from '@/server/reel'
import { listStitches } from '@/server/stitches'
import { pageTitle } from '@/server/pageTitle'
import { findWorkout } from '@/server/workouts'
import { WatchView } from '@/ui/watch/WatchView'

export const generateMetadata = ({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> =>
  pageTitle('watch', params)

export default async function WatchPage({ params }: { params: Promise<{ id: string }> }): Promise<ReactNode> {
  const workout = await findWorkout(idFrom((await params).id))
  const [{ reel: shownReel }, reel] = await Promise.all([progressOf(workout.id), reelOf(workout.id)])
  const { expansion } = tryExpand(workout.score)
  const shared = {
    id: workout.id,
    viewing: { count: workout.score.count, countOf: workout.score.countOf, moves: workout.score.moves },
    mix: workout.mix,
    look: workout.look,
    wishes: workout.cut,
    planned: { totalMs: expansion?.totalMs ?? 0, estimated: expansion?.estimated ?? false },
  }
  if (!reel.files.length) return <WatchView key={workout.id} {...shared} film={null} />
  const { stitches } = await listStitches(workout.id)
  const filmed = await filmedOf(reel, expansion?.segments ?? [], stitches, workout.cut)
  const fits = everyFit(filmed, workout.cut)
  const { cut, plainCut, shown } = fits[workout.cut.fit]
  const cameras = filmed.cameras.map((camera, at) => ({ ...camera, name: reel.cameras[at]?.name ?? '' }))
  const film = { reel: shownReel, cut, plainCut, cameras, shown, choices: choicesOf(fits), isTied: stitches.length > 0 }
  return <WatchView key={workout.id} {...shared} film={film} />
}
