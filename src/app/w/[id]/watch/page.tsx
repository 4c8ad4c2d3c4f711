import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { companionOf } from '@/core/cut/companion'
import { tryExpand } from '@/core/expand/expand'
import { DRAWN } from '@/engine/renderJob'
import { heavy } from '@/server/heavy/heavy'
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
  const segments = expansion?.segments ?? []
  const { count, countOf, moves, caution, series } = workout.score
  const viewing = { count, countOf, moves, caution, series }
  const { mix, cues, look, framing, proof, cut: wishes } = workout
  const planned = { totalMs: expansion?.totalMs ?? 0, estimated: expansion?.estimated ?? false }
  const shared = { id: workout.id, mix, cues, look, framing, proof, wishes, planned }
  const facts = reel.files[0]?.facts
  if (!facts) {
    const { cut, shown } = companionOf(segments)
    const film = {
      ...{ reel: shownReel, cut, plainCut: cut, cameras: [], shown, choices: null, isTied: true },
      ...{ size: DRAWN, rate: DRAWN.rate, coach: [], timer: [], marks: [] },
    }
    const companion = { ...viewing, namesTalk: true }
    return <WatchView key={workout.id} {...shared} viewing={companion} film={cut.spans.length ? film : null} />
  }
  const { stitches } = await listStitches(workout.id)
  const filmed = await filmedOf(reel, segments, stitches, workout.cut)
  const { cut, ...watched } = await heavy('watch', { filmed, wishes: workout.cut })
  const cameras = filmed.cameras.map((camera, at) => ({ ...camera, name: reel.cameras[at]?.name ?? '' }))
  const film = {
    ...{ reel: shownReel, cut, ...watched, cameras, isTied: stitches.length > 0 },
    ...{ size: facts, rate: facts.rate },
  }
  return <WatchView key={workout.id} {...shared} viewing={viewing} film={film} />
}
