// A whole session from what was told: where it is, what was done, and what stands of that.
import type { Segment } from '../score/segment'
import type { Ms } from '../units'
import { inOrderTold, type FloorEvent, type Mark } from './events'
import { advanced, after, READY, type FloorState, type Stretch } from './machine'

export interface Run {
  state: FloorState
  /** In order of time. */
  stretches: Stretch[]
}

/** @param nowMs session time up to which the clock has run. */
export function runOf(segments: readonly Segment[], events: readonly FloorEvent[], nowMs: Ms): Run {
  let state = READY
  const stretches: Stretch[] = []
  for (const event of inOrderTold(events)) {
    const step = after(segments, state, event)
    state = step.state
    stretches.push(...step.done)
  }
  const step = advanced(segments, state, nowMs)
  stretches.push(...step.done)
  return { state: step.state, stretches }
}

/** Whether a stretch was broken off, and is no take of its segment. */
const isBrokenOff = ({ endedBy }: Stretch): boolean =>
  endedBy === 'back' || endedBy === 'repeat' || endedBy === 'restartRound'

/** A stretch with what was said of it. */
export interface Take extends Stretch {
  /** Which time it is that this segment is done, from 1 on. */
  take: number
  mark: Mark | null
}

/** @param stretches in order of time. */
export function takesOf(stretches: readonly Stretch[], events: readonly FloorEvent[]): Take[] {
  const counts = new Map<string, number>()
  const takes = stretches.map((stretch): Take => {
    const take = (counts.get(stretch.segmentId) ?? 0) + 1
    counts.set(stretch.segmentId, take)
    return { ...stretch, take, mark: null }
  })
  for (const event of inOrderTold(events)) {
    if (event.kind !== 'mark') continue
    // It is about the last one by then; what runs on as it is said is marked as well.
    const marked = takes.findLast(({ segmentId, fromMs }) => segmentId === event.segmentId && fromMs <= event.atMs)
    if (marked) marked.mark = event.mark
  }
  return takes
}

/**
 * What stands of a session: of each segment the take that is good. That is the last one, or the last before those that
 * were broken off or are to be done again, where nothing better came after.
 * @returns in order of time, each segment once at most.
 */
export function standing(takes: readonly Take[]): Take[] {
  const best = new Map<string, Take>()
  const worth = (take: Take): number =>
    take.mark === 'good' ? 3 : isBrokenOff(take) ? 0 : take.mark === 'again' || take.endedBy === 'skip' ? 1 : 2
  for (const take of takes) {
    const rival = best.get(take.segmentId)
    if (!rival || worth(take) >= worth(rival)) best.set(take.segmentId, take)
  }
  const chosen = new Set(best.values())
  return takes.filter((take) => chosen.has(take))
}
