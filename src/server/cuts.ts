// What the cut of a workout's footage is made from.
import type { Stitch } from '../core/align/ties'
import type { Filmed } from '../core/cut/fit'
import { lay } from '../core/cut/lane'
import type { Evidence } from '../core/evidence'
import { tryExpand } from '../core/expand/expand'
import type { FootageFacts } from '../engine/probe'
import type { Workout } from './workouts'

export function filmedOf(
  workout: Workout,
  facts: Pick<FootageFacts, 'durationMs'> | null,
  stitches: readonly Stitch[],
  heard: readonly Evidence[],
): Filmed {
  const segments = tryExpand(workout.score).expansion?.segments ?? []
  const footageMs = facts?.durationMs ?? 0
  return { laid: lay(segments, stitches, footageMs), footageMs, heard }
}
