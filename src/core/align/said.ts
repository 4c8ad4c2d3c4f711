// Numbers that the coach says, held against the score: what is promised aloud and is not so confuses whoever follows.
import type { EvidenceOf } from '../evidence'
import type { Segment } from '../score/segment'
import { SECOND, type Ms } from '../units'
import { placeBoundaries } from './place'
import { isSure, type Stitch } from './ties'

/** A number that nothing near it in the score bears out. */
export interface SaidOtherwise {
  said: EvidenceOf<'said'>
  /** What it was most likely said of: the work that runs, or the next. */
  segment: Segment
}

/** What is said of lengths looks back this far in the plan, and ahead. */
const BEFORE = 1,
  AHEAD = 3
/** Less than this is told to a body, and not by a clock: "hold for five seconds". */
const LEAST_SECONDS = 10
/** Up to here it is of intervals; more is of the session. */
const MOST_SECONDS = 180
/** A coach who reads the time left, or passed, off a clock rounds it. */
const ROUNDED_MS: Ms = 3 * SECOND

/**
 * Only where a change before and one after are surely tied does anybody know what a number is said of.
 * @param stitches of one footage, in any order.
 * @returns in order of time, one for each number and move.
 */
export function saidOtherwise(
  segments: readonly Segment[],
  stitches: readonly Stitch[],
  said: readonly EvidenceOf<'said'>[],
  footageMs: Ms,
): SaidOtherwise[] {
  const sure = stitches.filter(isSure)
  if (!said.length || sure.length < 2) return []
  const places = placeBoundaries(segments, sure, footageMs).map((place) => place.footageMs)
  const times = sure.map((tie) => tie.footageMs)
  const first = Math.min(...times),
    last = Math.max(...times)
  const found = new Map<string, SaidOtherwise>()
  for (const one of said) {
    if (one.atMs < first || one.atMs >= last) continue
    const at = places.findLastIndex((ms) => ms <= one.atMs)
    const work = segments.slice(at).find(({ kind }) => kind === 'work')
    if (!work || isBorneOut(one, { segments, places, at })) continue
    const key = `${one.amount} ${one.counted} ${work.label} ${work.section}`
    if (!found.has(key)) found.set(key, { said: one, segment: work })
  }
  return [...found.values()]
}

interface Around {
  segments: readonly Segment[]
  places: readonly Ms[]
  /** Of the segment in which it is said. */
  at: number
}

function isBorneOut(said: EvidenceOf<'said'>, around: Around): boolean {
  const near = around.segments.slice(Math.max(0, around.at - BEFORE), around.at + AHEAD + 1)
  switch (said.counted) {
    case 'seconds':
      return lengthFits(said, near, around)
    case 'reps': {
      // Where nothing is counted, a number of reps is advice.
      const counted = near.flatMap(({ reps }) => reps ?? [])
      return !counted.length || counted.some((reps) => reps === said.amount || reps === 2 * said.amount)
    }
    case 'rounds': {
      const rounded = near.filter(({ rounds }) => (rounds ?? 1) > 1)
      return (
        !rounded.length ||
        rounded.some(({ round, rounds }) => {
          const left = (rounds ?? 0) - (round ?? 0)
          return [rounds, round, left, left + 1].includes(said.amount)
        })
      )
    }
  }
}

/** It is the length of something near, or half of it, or what is left or has passed of it. */
function lengthFits({ amount, atMs }: EvidenceOf<'said'>, near: readonly Segment[], around: Around): boolean {
  if (amount < LEAST_SECONDS || amount > MOST_SECONDS) return true
  const saidMs = amount * SECOND
  const isAbout = (ms: Ms | undefined): boolean => ms !== undefined && Math.abs(ms - saidMs) <= ROUNDED_MS
  const { segments, places, at } = around
  const halves = (segment: Segment): Ms[] => [segment.durationMs, segment.durationMs / 2, segment.slot?.ofMs ?? 0]
  if (near.some((segment) => segment.pace !== 'fixed' || halves(segment).includes(saidMs))) return true
  // Also of the whole station, its rest included, as where "a minute each" is said.
  const pairs = near.map((segment, index) => segment.durationMs + (near[index + 1]?.durationMs ?? 0))
  const fromMs = places[at],
    toMs = places[at + 1]
  const passed = fromMs === undefined ? undefined : atMs - fromMs,
    left = toMs === undefined ? undefined : toMs - atMs
  return pairs.includes(saidMs) || isAbout(left) || (segments[at]?.kind === 'work' && isAbout(passed))
}
