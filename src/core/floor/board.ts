// What stands on the screen of the floor at an instant, as data: for whoever stands four metres away.
import type { Ground } from '../look/overlay'
import type { Cast } from '../score/cast'
import type { Segment } from '../score/segment'
import { weightText } from '../score/formats/station'
import { sum } from '../sum'
import { SECOND, type Ms, type Share } from '../units'
import { OTHER_WAY, nameOf, roundOf, setOf, stationOf } from '../words/en/names'
import { elapsedMs, endMsOf, waits, type FloorState, type Phase } from './machine'

export interface Board {
  phase: Phase
  ground: Exclude<Ground, 'talk'>
  /** Whole seconds: left by the clock, or gone by where it waits; null where nothing runs. */
  count: number | null
  way: 'down' | 'up'
  /** How much of it is left; null where nobody knows. */
  left: Share | null
  pastHalf: boolean
  label: string
  side: 'left' | 'right' | 'both' | null
  /** "10 reps", "6 kg", "water jug": what is done it with, and how much of it. */
  details: string[]
  /** Sets, rounds and stations, widest first. */
  counters: string[]
  next: { label: string; lengthMs: Ms | null; details: string[] } | null
  /** Lasts until somebody says that it is done. */
  waits: boolean
  /** Since the session began, without what it was held; and planned from here on. */
  inMs: Ms
  leftMs: Ms
  /** What is left holds guesses: own pace, talk, what was opened. */
  leftIsGuess: boolean
}

export interface BoardOf {
  segments: readonly Segment[]
  cast: Cast
  state: FloorState
  nowMs: Ms
}

export function boardOf({ segments, cast, state, nowMs }: BoardOf): Board {
  const { phase, at } = state
  const clock = clockOf(segments, state, nowMs)
  const over = phase === 'ended'
  const segment = over ? undefined : segments[at]
  const rest = over ? [] : segments.slice(clock.countsIn || phase === 'ready' ? at : at + 1)
  return {
    ...{ phase, ground: groundOf(segment, clock.countsIn), count: countOf(phase, clock) },
    way: clock.leftMs === null ? 'up' : 'down',
    left: clock.leftMs === null || !clock.totalMs ? null : clock.leftMs / clock.totalMs,
    pastHalf: clock.pastHalf,
    ...shownOf(segment, cast, clock.pastHalf),
    next: over ? null : nextOf(segments, cast, at),
    waits: clock.waits && !over,
    inMs: nowMs,
    leftMs: (clock.leftMs ?? 0) + sum(rest.map(({ durationMs }) => durationMs)),
    leftIsGuess: (clock.waits && !over) || rest.some(({ estimated, slot }) => estimated && !slot),
  }
}

interface Clock {
  countsIn: boolean
  waits: boolean
  passedMs: Ms
  /** Of what runs, or of its slot; null where nobody knows. */
  totalMs: Ms | null
  leftMs: Ms | null
  pastHalf: boolean
}

function clockOf(segments: readonly Segment[], state: FloorState, nowMs: Ms): Clock {
  const countsIn = state.phase === 'countingIn' || (state.phase === 'holding' && state.countInMs > 0)
  const passedMs = elapsedMs(state, nowMs)
  const totalMs = state.phase === 'ended' ? null : totalOf(segments, state, countsIn)
  const leftMs = totalMs === null ? null : Math.max(0, totalMs - passedOf(segments, state, passedMs, countsIn))
  return {
    ...{ countsIn, passedMs, totalMs, leftMs, waits: !countsIn && waits(segments, state) },
    pastHalf: totalMs !== null && leftMs !== null && leftMs * 2 <= totalMs,
  }
}

function groundOf(segment: Segment | undefined, countsIn: boolean): Board['ground'] {
  if (!segment || countsIn || segment.kind === 'lead') return 'ready'
  return segment.kind === 'work' ? 'work' : 'rest'
}

function shownOf(
  segment: Segment | undefined,
  cast: Cast,
  pastHalf: boolean,
): Pick<Board, 'label' | 'side' | 'details' | 'counters'> {
  if (!segment) return { label: '', side: null, details: [], counters: [] }
  const name = nameOf({ ...segment, side: null })
  return {
    label: segment.reverses && pastHalf ? `${OTHER_WAY}: ${name}` : name,
    side: sideOf(segment, pastHalf),
    details: detailsOf(segment, cast),
    counters: [roundOf(segment), setOf(segment), stationOf(segment)].filter(Boolean),
  }
}

/** How long what runs lasts in all; of a slot, the whole of it. */
function totalOf(segments: readonly Segment[], state: FloorState, countsIn: boolean): Ms | null {
  if (countsIn) return state.countInMs
  const endMs = endMsOf(segments, { ...state, phase: 'running' })
  const slot = state.opened ? null : segments[state.at]?.slot
  return endMs === null ? null : slot ? slot.ofMs : endMs - state.fromMs
}

function passedOf(segments: readonly Segment[], state: FloorState, passedMs: Ms, countsIn: boolean): Ms {
  const inSlot = !countsIn && !state.opened && segments[state.at]?.slot
  return inSlot ? passedMs + state.fromMs - state.slotMs : passedMs
}

function countOf(phase: Phase, { leftMs, passedMs }: Clock): number | null {
  if (phase === 'ready' || phase === 'ended') return null
  return leftMs === null ? Math.floor(passedMs / SECOND) : Math.max(1, Math.ceil(leftMs / SECOND))
}

function sideOf({ side, firstSide }: Segment, secondHalf: boolean): Board['side'] {
  if (side === 'switch') return (firstSide === 'left') === secondHalf ? 'right' : 'left'
  return side
}

/** What is only guessed of a move is not told to somebody who cannot look it up. */
function detailsOf(segment: Segment, cast: Cast): string[] {
  if (segment.kind !== 'work') return []
  const gear = segment.moves.map(cast).flatMap(({ sure, gear }) => (sure === 'known' ? gear : []))
  const reps = segment.reps !== null && segment.moves.length < 2 ? [`${segment.reps} reps`] : []
  return [...reps, ...(segment.weight ? [weightText(segment.weight)] : []), ...new Set(gear)]
}

/** The next work, over a rest between; talk where that comes first. */
function nextOf(segments: readonly Segment[], cast: Cast, at: number): Board['next'] {
  for (const segment of segments.slice(at + 1)) {
    if (segment.kind !== 'work' && segment.kind !== 'talk') continue
    return {
      label: nameOf(segment),
      lengthMs: segment.pace === 'fixed' || segment.pace === 'range' ? segment.durationMs : null,
      details: detailsOf(segment, cast),
    }
  }
  return null
}
