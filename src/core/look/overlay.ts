// What stands on the picture at an instant, and when it changes. Decided here as data; `drawOverlay` draws it.
import { middleOf } from '../cue/cues'
import type { ShownSegment } from '../cut/cut'
import type { Score } from '../score/score'
import type { Ms } from '../units'
import { KIND_NAMES, nameOf, roundOf, setOf, stationOf } from '../words/en/names'

export type Ground = 'work' | 'rest' | 'ready'

export interface OverlayState {
  ground: Ground
  /** Whole seconds left, or done where the count goes up; 1 or more. */
  count: number
  /** Steps of the tide staff still above water, 0 to `STAFF_STEPS`. */
  staff: number
  label: string
  side: 'left' | 'right' | null
  counters: string
  /** What comes next, or empty. */
  next: string
}

export const STAFF_STEPS = 10

/** A change of the overlay: from `fromMs` on it shows `state`; null shows nothing. */
export interface OverlayChange {
  fromMs: Ms
  state: OverlayState | null
}

/**
 * Everything the overlay will ever show, in order. Digits change at whole seconds before the interval's true end, so
 * that zero falls on the boundary; an interval that ran long holds its planned number until the plan has caught up.
 */
export function overlayChanges(lane: readonly ShownSegment[], count: Score['count'] = 'down'): OverlayChange[] {
  const changes: OverlayChange[] = []
  lane.forEach((laid, index) => {
    if (laid.endMs <= laid.startMs) return
    if (laid.segment.kind === 'talk') changes.push({ fromMs: laid.startMs, state: null })
    else {
      const next = comingUp(lane, index)
      for (const fromMs of instantsIn(laid)) changes.push({ fromMs, state: stateAt(laid, next, fromMs, count) })
    }
    if (index === lane.length - 1) changes.push({ fromMs: laid.endMs, state: null })
  })
  return changes.filter(
    (change, index) => index === 0 || keyOf(change.state) !== keyOf(changes[index - 1]?.state ?? null),
  )
}

/** Two equal keys are the same picture. */
export const keyOf = (state: OverlayState | null): string => (state ? JSON.stringify(state) : '')

/** The overlay at an instant, by binary search. */
export function overlayAt(changes: readonly OverlayChange[], atMs: Ms): OverlayState | null {
  let low = 0,
    high = changes.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((changes[middle]?.fromMs ?? 0) <= atMs) low = middle + 1
    else high = middle
  }
  return changes[low - 1]?.state ?? null
}

function instantsIn({ segment, startMs, endMs }: ShownSegment): Ms[] {
  const instants = [startMs]
  if (segment.side === 'switch') instants.push(middleOf(startMs, endMs))
  for (let at = endMs - 1000; at > startMs; at -= 1000) instants.push(at)
  return instants.sort((one, other) => one - other)
}

function stateAt(
  { segment, startMs, endMs }: ShownSegment,
  next: ShownSegment | undefined,
  atMs: Ms,
  way: Score['count'],
): OverlayState {
  const left = Math.ceil((endMs - atMs) / 1000)
  const planned = Math.ceil(segment.durationMs / 1000)
  const down = Math.max(1, planned ? Math.min(left, planned) : left)
  // Counting up, the last second bears the whole length.
  const count = way === 'down' ? down : Math.max(1, (planned || Math.ceil((endMs - startMs) / 1000)) - down + 1)
  return {
    ground: segment.kind === 'work' ? 'work' : segment.kind === 'lead' ? 'ready' : 'rest',
    count,
    staff: Math.min(STAFF_STEPS, Math.ceil(((endMs - atMs) / Math.max(1, endMs - startMs)) * STAFF_STEPS)),
    label: segment.label || KIND_NAMES[segment.kind],
    side: sideAt(segment.side, atMs < middleOf(startMs, endMs)),
    counters: shownCounters(segment),
    next: next ? `Next: ${nameOf(next.segment)}` : '',
  }
}

function sideAt(side: ShownSegment['segment']['side'], firstHalf: boolean): 'left' | 'right' | null {
  if (side === 'switch') return firstHalf ? 'left' : 'right'
  return side === 'left' || side === 'right' ? side : null
}

const shownCounters = (segment: ShownSegment['segment']): string =>
  [setOf(segment), roundOf(segment), segment.kind === 'work' ? stationOf(segment) : ''].filter(Boolean).join('  /  ')

/**
 * The next move, over a rest between: that is what a viewer has to get ready for. Nothing where talk or the end comes
 * first.
 */
function comingUp(lane: readonly ShownSegment[], index: number): ShownSegment | undefined {
  for (let ahead = index + 1; ahead < lane.length; ahead++) {
    const laid = lane[ahead]
    if (!laid || laid.segment.kind === 'talk') return undefined
    if (laid.segment.kind === 'work' && laid.endMs > laid.startMs) return laid
  }
  return undefined
}
