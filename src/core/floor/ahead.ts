// What the clock will do from here on, as far as that is known: the same segments in time that cues and overlay of a
// video are made from, but in session time.
import type { ShownSegment } from '../cut/cut'
import type { Segment } from '../score/segment'
import { endMsOf, waits, type FloorState } from './machine'

/** The counting in, as a segment of its own. */
const countIn = (target: Segment, { fromMs, countInMs }: FloorState): ShownSegment => ({
  segment: {
    ...{ ...target, kind: 'lead', label: '', side: null, reverses: false, reps: null, weight: null, pace: 'fixed' },
    ...{ slot: null, durationMs: countInMs },
  },
  ...{ startMs: fromMs, endMs: fromMs + countInMs, startTied: true, endTied: true },
})

/**
 * From what runs up to the first segment that waits, that one included; its end is a guess, and not tied. Nothing while
 * the session is on hold, or does not run.
 */
export function aheadOf(segments: readonly Segment[], state: FloorState): ShownSegment[] {
  const lane: ShownSegment[] = []
  const current = segments[state.at]
  if (!current || (state.phase !== 'countingIn' && state.phase !== 'running')) return lane
  let at = state.at,
    fromMs = state.fromMs,
    slotMs = state.slotMs
  if (state.phase === 'countingIn') {
    lane.push(countIn(current, state))
    fromMs += state.countInMs
    slotMs = fromMs - (current.slot?.beforeMs ?? 0)
  }
  for (let opened = state.opened; at < segments.length; at++, opened = false) {
    const segment = segments[at]
    if (!segment) break
    if (segment.slot?.beforeMs === 0) slotMs = at === state.at ? slotMs : fromMs
    const endMs = endMsOf(segments, { ...state, phase: 'running', at, fromMs, slotMs, opened })
    const isOpen = waits(segments, { at, opened })
    const shown = isOpen && !segment.slot ? ({ ...segment, pace: 'own' } as const) : segment
    lane.push({
      segment: shown,
      ...{ startMs: fromMs, endMs: endMs ?? fromMs + segment.durationMs, startTied: true, endTied: !isOpen },
    })
    if (endMs === null) break
    fromMs = endMs
  }
  return lane
}
