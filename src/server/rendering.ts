// All that a video of a workout is made from, as it is now: what is planned, filmed, tied, cut, dressed and heard.
import { companionOf } from '../core/cut/companion'
import type { Cut } from '../core/cut/cut'
import { fitted } from '../core/cut/fit'
import { aimsOf } from '../core/cut/framing'
import { heardInOutput } from '../core/cut/heard'
import { inFiles } from '../core/cut/spans'
import { expand } from '../core/expand/expand'
import { Problem } from '../core/problem'
import type { Segment } from '../core/score/segment'
import type { Version } from '../core/version'
import { loudnessOnce } from '../engine/loudness'
import type { RenderJob } from '../engine/renderJob'
import { musicFiles } from './music'
import { recordingFiles } from './recordings'
import { endToEnd, filmedOf, lengthsOf, recorded, reelOf, type Reel } from './reel'
import { listStitches } from './stitches'
import { findWorkout, type Workout } from './workouts'

export interface Rendering {
  workout: Workout
  reel: Reel
  /** Of the ties. */
  version: Version
  /** In the time of the whole reel. */
  cut: Cut
  job: Omit<RenderJob, 'out'> & Required<Pick<RenderJob, 'mix' | 'look'>>
}

/**
 * Without footage it is the companion: the plan itself, drawn.
 * @throws Problem `not-found`, `not-stitched` where there is footage that no change is tied to, `music-gone`.
 */
export async function renderingOf(workoutId: string): Promise<Rendering> {
  const [workout, reel, { stitches, version }] = await Promise.all([
    findWorkout(workoutId),
    reelOf(workoutId),
    listStitches(workoutId),
  ])
  const { segments } = expand(workout.score)
  const { mix, look, cues, framing, score } = workout
  const dressed = { ...{ mix, look }, music: await musicFiles(mix.music.pieces), recordings: await recordingFiles() }
  if (!reel.files.length) {
    const { cut, shown } = companionOf(segments)
    const viewing = { ...score, namesTalk: true }
    const cueAsk = { wishes: cues, moves: score.moves }
    const job = { ...dressed, reel: [], cut, shown, viewing, cueAsk, framing: { shape: framing.shape, aims: [] } }
    return { workout, reel, version, cut, job }
  }
  const { cut, shown, heard } = await cutOf(workout, reel, segments, stitches)
  const files = endToEnd(reel)
  const job = {
    ...{ ...dressed, shown, viewing: score },
    reel: await Promise.all(
      files.map(async (file) => {
        const film = await recorded(file)
        return { ...film, loudness: await loudnessOnce(film) }
      }),
    ),
    cut: inFiles(cut, lengthsOf(files)),
    cueAsk: { wishes: cues, moves: score.moves, ...heardInOutput(cut, heard) },
    framing: { shape: framing.shape, aims: files.map(({ id }) => aimsOf(framing, id)) },
  }
  return { workout, reel, version, cut, job }
}

async function cutOf(
  workout: Workout,
  reel: Reel,
  segments: readonly Segment[],
  stitches: Awaited<ReturnType<typeof listStitches>>['stitches'],
) {
  const known = new Set(segments.map(({ id }) => id))
  const tied = stitches.filter(({ segmentId }) => known.has(segmentId))
  if (!tied.length) throw new Problem({ code: 'not-stitched' })
  const filmed = await filmedOf(reel, segments, tied, workout.cut)
  return { ...fitted(filmed, workout.cut), heard: filmed.heard }
}
