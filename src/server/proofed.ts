// What somebody has found right of a workout in Watch, held against what it shows and sounds now.
import { overlayChanges } from '../core/look/overlay'
import { Problem } from '../core/problem'
import { watchedChanges } from '../core/proof/changes'
import { stateOf, type CheckState } from '../core/proof/proof'
import { DRAWN } from '../engine/renderJob'
import { spokenCues } from '../engine/renderSound'
import { renderingOf } from './rendering'

/** How many changes are in each state; null where nothing can be rendered. */
export async function proofedOf(workoutId: string, signal: AbortSignal): Promise<Record<CheckState, number> | null> {
  try {
    const { workout, cut, job } = await renderingOf(workoutId)
    const { cues } = await spokenCues(job, signal)
    const overlay = overlayChanges(job.shown, job.viewing)
    const { rate } = job.reel[0]?.facts ?? DRAWN
    // What was heard around a change makes it no other one.
    const changes = watchedChanges({ cut, shown: job.shown, overlay, cues, rate, marks: [] })
    const counts = { open: 0, checked: 0, asked: 0 }
    for (const change of changes) counts[stateOf(workout.proof, change)]++
    return counts
  } catch (error) {
    if (error instanceof Problem) return null
    throw error
  }
}
