// What stands in the way of publishing a video, as it and its workout are now.
import { obstaclesOf, type Obstacle } from '../core/publish/obstacles'
import { readChapters } from '../core/write/chapters'
import type { Pack } from './packs'
import { proofedOf } from './proofed'
import { HOSTS, USUAL_HOST } from './publications'
import { reelOf } from './reel'
import { findWorkout } from './workouts'
import { changedSince, isOutdated, leftToDo } from './workoutState'

export interface Publishing {
  host: { name: string; isSimulated: boolean; isAway: boolean }
  obstacles: Obstacle[]
}

export async function publishingOf(pack: Pack, signal: AbortSignal): Promise<Publishing> {
  const host = HOSTS[USUAL_HOST]
  const [workout, reel, limits, proofed] = await Promise.all([
    findWorkout(pack.workoutId),
    reelOf(pack.workoutId),
    host?.limits(signal).catch(() => null) ?? null,
    proofedOf(pack.workoutId, signal),
  ])
  const changed = await changedSince(pack, reel)
  const obstacles = obstaclesOf({
    ...{ title: pack.title, description: pack.description, captions: pack.captions, verified: pack.verified, limits },
    ...{ chapters: readChapters(pack.chapters), videoBytes: pack.videoBytes, purpose: pack.purpose },
    lengthMs: pack.verified?.lengthMs ?? 0,
    ...{ proofed, openNotes: workout.proof.notes.length },
    isOutdated: isOutdated(changed),
    leftToDo: reel.files.length ? await leftToDo(pack.workoutId, workout.score) : 0,
  })
  return { host: { name: host?.name ?? '', isSimulated: host?.isSimulated ?? false, isAway: !limits }, obstacles }
}
