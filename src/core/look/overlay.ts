// What stands on the picture at an instant, and when it changes. Decided here as data; `drawOverlay` draws it.
import { middleOf } from '../cue/cues'
import { slotEnd, type ShownSegment } from '../cut/cut'
import { weightText } from '../score/formats/station'
import type { Counting } from '../score/score'
import { SECOND, type Ms } from '../units'
import { KIND_NAMES, nameOf, OTHER_WAY, roundOf, setOf, stationOf } from '../words/en/names'

export type Ground = 'work' | 'rest' | 'ready'

export interface OverlayState {
  ground: Ground
  /** Whole seconds left, or done where the count goes up; 1 or more. */
  count: number
  /** Steps of the tide staff still above water, 0 to `STAFF_STEPS`; null where nobody knows how long it lasts. */
  staff: number | null
  label: string
  side: 'left' | 'right' | null
  counters: string
  /** What comes next, or empty. */
  next: string
}

const USUAL: Counting = { count: 'down', countOf: 'filmed' }
/** Work that ran so near to its plan shows the number that was announced. */
const HOLDS_PLAN_MS: Ms = 1500

export const STAFF_STEPS = 10

/** A change of the overlay: from `fromMs` on it shows `state`; null shows nothing. */
export interface OverlayChange {
  fromMs: Ms
  state: OverlayState | null
}

/**
 * Everything the overlay will ever show, in order. Digits change at whole seconds before the interval's true end, so
 * that zero falls on the boundary. Work that ran to its plan within a moment shows the planned number, and holds it
 * until the plan has caught up; all else counts what was filmed, unless the workout counts as planned.
 */
export function overlayChanges(lane: readonly ShownSegment[], { count, countOf }: Counting = USUAL): OverlayChange[] {
  const changes: OverlayChange[] = []
  lane.forEach((laid, index) => {
    if (laid.endMs <= laid.startMs) return
    if (laid.segment.kind === 'talk') changes.push({ fromMs: laid.startMs, state: null })
    else {
      const next = comingUp(lane, index)
      const clock = clockOf(lane, index, countOf)
      for (const fromMs of instantsIn(laid, clock))
        changes.push({
          fromMs,
          state: stateAt(laid, next, fromMs, clock.isGuess ? { ...clock, way: 'up' } : { ...clock, way: count }),
        })
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

/** The clock that viewers read: that of the segment, or of the slot that it is part of. */
interface Clock {
  startMs: Ms
  endMs: Ms
  /** The length that the count begins with; 0 where there is none. */
  plannedMs: Ms
  /** Nobody knows when it ends: it is counted up, if at all. */
  isGuess: boolean
}

function clockOf(lane: readonly ShownSegment[], index: number, countOf: Counting['countOf']): Clock {
  const laid = lane[index]
  if (!laid) return { startMs: 0, endMs: 0, plannedMs: 0, isGuess: false }
  const { segment, startMs, endMs } = laid
  const { slot } = segment
  if (slot) {
    const end = slotEnd(lane, index)
    return { startMs: Math.min(startMs, end - slot.ofMs), endMs: end, plannedMs: slot.ofMs, isGuess: false }
  }
  // Work at one's own pace has no clock of its own; its planned length is a guess, and never counted.
  if (segment.pace === 'own') return { startMs, endMs, plannedMs: 0, isGuess: true }
  const ranToPlan = segment.kind === 'work' && Math.abs(endMs - startMs - segment.durationMs) <= HOLDS_PLAN_MS
  // A fraction of a second at the start shows no number of its own.
  const filmedMs = Math.max(SECOND, Math.round((endMs - startMs) / SECOND) * SECOND)
  const plannedMs = ranToPlan || countOf === 'planned' ? segment.durationMs : filmedMs
  return { startMs, endMs, plannedMs, isGuess: false }
}

function instantsIn({ segment, startMs, endMs }: ShownSegment, clock: Clock): Ms[] {
  const instants = [startMs]
  if (segment.side === 'switch' || segment.reverses) instants.push(middleOf(startMs, endMs))
  if (clock.isGuess) for (let at = startMs + 1000; at < endMs; at += 1000) instants.push(at)
  else for (let at = clock.endMs - 1000; at > startMs; at -= 1000) if (at < endMs) instants.push(at)
  return instants.sort((one, other) => one - other)
}

function stateAt(
  { segment, startMs, endMs }: ShownSegment,
  next: ShownSegment | undefined,
  atMs: Ms,
  clock: Clock & { way: Counting['count'] },
): OverlayState {
  return {
    ground: segment.kind === 'work' ? 'work' : segment.kind === 'lead' ? 'ready' : 'rest',
    count: clock.isGuess ? Math.floor((atMs - startMs) / 1000) + 1 : countAt(atMs, clock),
    staff: clock.isGuess ? null : staffAt(atMs, clock),
    label: `${segment.reverses && atMs >= middleOf(startMs, endMs) ? `${OTHER_WAY}: ` : ''}${segment.reps === null ? '' : `${segment.reps} `}${segment.label || KIND_NAMES[segment.kind]}`,
    side: sideAt(segment, atMs < middleOf(startMs, endMs)),
    counters: shownCounters(segment),
    next: next
      ? `Next: ${nameOf(next.segment)}${next.segment.weight ? `, ${weightText(next.segment.weight)}` : ''}`
      : '',
  }
}

function countAt(atMs: Ms, { startMs, endMs, plannedMs, way }: Clock & { way: Counting['count'] }): number {
  const left = Math.ceil((endMs - atMs) / 1000)
  const planned = Math.ceil(plannedMs / 1000)
  const down = Math.max(1, planned ? Math.min(left, planned) : left)
  // Counting up, the last second bears the whole length.
  return way === 'down' ? down : Math.max(1, (planned || Math.ceil((endMs - startMs) / 1000)) - down + 1)
}

const staffAt = (atMs: Ms, { startMs, endMs }: Clock): number =>
  Math.min(STAFF_STEPS, Math.ceil(((endMs - atMs) / Math.max(1, endMs - startMs)) * STAFF_STEPS))

function sideAt({ side, firstSide }: ShownSegment['segment'], firstHalf: boolean): 'left' | 'right' | null {
  if (side === 'switch') return firstHalf === (firstSide === 'left') ? 'left' : 'right'
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
