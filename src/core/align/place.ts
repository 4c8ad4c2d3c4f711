// Where every boundary lies in a footage. A tied one lies exactly where it was tied. Between two ties the plan holds,
// and what is over or missing goes where it really goes: to talk, then to breaks and to parts without a clock, and only
// then to what a timer ran. Where so much is missing that some was not filmed, it was the last of it. Outside the ties
// the fitted clock carries on.
import type { Segment } from '../score/segment'
import { sum } from '../sum'
import type { Ms, Share } from '../units'
import { boundariesOf, type Boundary } from './boundaries'
import { fitClock } from './clock'
import { holdingTies, type Tie } from './ties'

export interface Place {
  footageMs: Ms
  /** False where it is reckoned from its neighbours. */
  tied: boolean
}

/**
 * @param ties in any order; those that cannot hold beside the others are left out (`holdingTies`).
 * @param footageMs length of the footage; nothing is placed outside `[0, footageMs]`.
 * @returns the place of each of `boundariesOf(segments)`, never running backwards. With no tie at all, the plan from 0.
 */
export function placeBoundaries(segments: readonly Segment[], ties: readonly Tie[], footageMs: Ms): Place[] {
  const boundaries = boundariesOf(segments)
  const anchors = holdingTies(segments, ties, footageMs)
  const rate = 1 + fitClock(boundaries, ties).driftPpm / 1e6
  const times = boundaries.map((boundary) => boundary.plannedMs)
  for (const { at, tie } of anchors) times[at] = tie.footageMs
  const first = anchors[0],
    last = anchors.at(-1)
  if (first && last) {
    carryOn({ boundaries, times, from: first.at, to: 0, rate })
    carryOn({ boundaries, times, from: last.at, to: boundaries.length - 1, rate })
    anchors.forEach((anchor, number) => {
      const next = anchors[number + 1]
      if (next) fillBetween({ segments, times, from: anchor.at, to: next.at, rate })
    })
  }
  const tied = new Set(anchors.map(({ at }) => at))
  openEnds(segments, times, tied, footageMs)
  return settled(times, tied, footageMs)
}

interface Carrying {
  boundaries: readonly Boundary[]
  times: Ms[]
  /** The tied boundary, and the last of those that follow it in one direction. */
  from: number
  to: number
  rate: number
}

function carryOn({ boundaries, times, from, to, rate }: Carrying): void {
  const anchorMs = times[from] ?? 0,
    plannedMs = boundaries[from]?.plannedMs ?? 0
  const step = Math.sign(to - from)
  for (let at = from + step; step && at !== to + step; at += step)
    times[at] = anchorMs + rate * ((boundaries[at]?.plannedMs ?? 0) - plannedMs)
}

interface Filling {
  segments: readonly Segment[]
  times: Ms[]
  /** Two tied boundaries. */
  from: number
  to: number
  rate: number
}

/** What takes up time that the plan does not have, in the order in which it is asked: 0 first. */
const yields = ({ kind, estimated }: Segment): 0 | 1 | 2 =>
  kind === 'talk' ? 0 : kind === 'break' || estimated ? 1 : 2

function fillBetween(filling: Filling): void {
  const { segments, times, from, to, rate } = filling
  const between = segments.slice(from, to)
  const lengths = between.map((segment) => segment.durationMs * rate)
  const startMs = times[from] ?? 0
  let slackMs = (times[to] ?? 0) - startMs - sum(lengths)
  if (-slackMs > mostGiven(between, lengths)) return carryUntil(lengths, filling)
  for (const turn of [0, 1, 2] as const) {
    const taking = between.flatMap((segment, index) => (yields(segment) === turn ? [index] : []))
    if (taking.length && slackMs) slackMs = spread(lengths, taking, slackMs)
  }
  let atMs = startMs
  for (let index = 0; index < between.length - 1; index++) {
    atMs += lengths[index] ?? 0
    times[from + index + 1] = atMs
  }
}

/** Where more is missing than timed stretches may have lost, part of them was not filmed at all. */
const MOST_LOST: Share = 0.25

const mostGiven = (between: readonly Segment[], lengths: readonly Ms[]): Ms =>
  sum(between.map((segment, index) => (lengths[index] ?? 0) * (yields(segment) === 2 ? MOST_LOST : 1)))

/** The plan goes on from the tie for as long as there is footage; the rest was not filmed, and lasts nothing. */
function carryUntil(lengths: readonly Ms[], { times, from, to }: Filling): void {
  let atMs = times[from] ?? 0
  for (let index = 0; index < lengths.length - 1; index++) {
    atMs = Math.min(times[to] ?? 0, atMs + (lengths[index] ?? 0))
    times[from + index + 1] = atMs
  }
}

/**
 * Shares time out in proportion to length, evenly where there is none; nothing gets shorter than nothing.
 * @returns what is left.
 */
function spread(lengths: number[], taking: readonly number[], slackMs: number): number {
  const held = sum(taking.map((index) => lengths[index] ?? 0))
  const given = Math.max(slackMs, -held)
  for (const index of taking) {
    const share = held ? (lengths[index] ?? 0) / held : 1 / taking.length
    lengths[index] = (lengths[index] ?? 0) + given * share
  }
  return slackMs - given
}

/** Opening talk begins with the footage, closing talk ends with it, unless somebody tied them. */
function openEnds(segments: readonly Segment[], times: Ms[], tied: ReadonlySet<number>, footageMs: Ms): void {
  if (segments[0]?.kind === 'talk' && !tied.has(0)) times[0] = 0
  if (segments.at(-1)?.kind === 'talk' && !tied.has(segments.length)) times[segments.length] = footageMs
}

/** Whole milliseconds in the order of time, inside the footage. Ties are there already and stay. */
function settled(times: readonly Ms[], tied: ReadonlySet<number>, footageMs: Ms): Place[] {
  let earliest = 0
  const places = times.map((ms, at): Place => {
    const place = tied.has(at) ? ms : Math.min(footageMs, Math.max(earliest, Math.round(ms)))
    earliest = place
    return { footageMs: place, tied: tied.has(at) }
  })
  // What was reckoned from a later tie may not lie beyond it.
  let latest = footageMs
  for (const place of places.reverse()) {
    if (!place.tied) place.footageMs = Math.min(place.footageMs, latest)
    latest = place.footageMs
  }
  return places.reverse()
}
