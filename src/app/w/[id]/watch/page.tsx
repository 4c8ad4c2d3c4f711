import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { choicesOf, everyFit } from '@/core/cut/choices'
import { companionOf } from '@/core/cut/companion'
import { heardInOutput } from '@/core/cut/heard'
import { tryExpand } from '@/core/expand/expand'
import { marksIn } from '@/core/proof/changes'
import { DRAWN } from '@/engine/renderJob'
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
  const fits = everyFit(filmed, workout.cut)
  const { cut, plainCut, shown } = fits[workout.cut.fit]
  const cameras = filmed.cameras.map((camera, at) => ({ ...camera, name: reel.cameras[at]?.name ?? '' }))
  const film = {
    ...{ reel: shownReel, cut, plainCut, cameras, shown, choices: choicesOf(fits), isTied: stitches.length > 0 },
    ...{ size: facts, rate: facts.rate, ...heardInOutput(cut, filmed.heard), marks: marksIn(cut, filmed.heard) },
  }
  return <WatchView key={workout.id} {...shared} viewing={viewing} film={film} />
}
