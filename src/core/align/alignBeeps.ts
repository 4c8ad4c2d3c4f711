// Ties boundaries to beeps. Beeps may be missing, extra or counting; clocks drift and get restarted. The best chain of
// ties is found by dynamic programming over (boundary, beep): regular steps keep the planned distance, a restart breaks
// it at a price, a boundary without a beep costs a little. The same is done backwards, so that for every tie it is
// known how much worse the best chain is that ties its boundary to another instant: its margin. Nothing is sure without
// one.
import type { TimerBeep } from '../hear/timerBeeps'
import { Problem } from '../problem'
import type { Ms } from '../units'
import type { Boundary } from './boundaries'
import type { Stitch } from './ties'

/** A regular step may be off by this much, plus the share below of its length for clock drift. */
const TOLERANCE_MS = 90
const DRIFT_SHARE = 500e-6
const MISS_COST = 0.35
/** Sessions are often filmed in part: what lies before the first tie or after the last hardly counts. */
const UNFILMED_COST = 0.02
const RESTART_COST = 2.4
const OVER_TALK_COST = 0.4
/** Boundaries further back than this are reached by a restart, not by a regular step. */
const LOOK_BACK = 60
/** A beep less likely than this to mark a change is a second on the way to one. */
const LEAST_LIKELY = 0.4
/** Two beeps this close are one instant: neither rivals the other. */
const SAME_INSTANT_MS = 300
/** Pairs of boundary and beep that are weighed at most: about a second of work. */
const MOST_PAIRS = 6_000_000

/** A chain with fewer ties is never sure, whatever its margin. */
const LONG_CHAIN = 8
/** A tie whose best rival scores this much less is unrivalled. A whole tie with its regular step is worth about 2.3. */
const UNRIVALLED = 6
/** Share of the changes between the first tie and the last that were found, and of the marks there that were used. */
const FOUND_SHARE = 0.8
const USED_SHARE = 0.75
/** Up to here where anything is missing of that. */
const MOST_UNSURE = 0.8

/**
 * @param boundaries all boundaries of the score; those that are not audible are never tied.
 * @param beeps in order of time.
 * @returns ties in order of time. A boundary that is held by no regular neighbour is left out rather than guessed.
 * @throws Problem `too-many` where score and recording are too large to be matched.
 */
export function alignBeeps(boundaries: readonly Boundary[], beeps: readonly TimerBeep[]): Stitch[] {
  const audible = boundaries.filter((boundary) => boundary.audible)
  const marks = beeps.filter((beep) => beep.boundaryLikelihood >= LEAST_LIKELY)
  const pairs = audible.length * marks.length
  if (pairs > MOST_PAIRS)
    throw new Problem({ code: 'too-many', what: 'pairs to match', most: MOST_PAIRS, found: pairs })
  if (!pairs) return []
  const talks = talkCounts(boundaries, audible)
  const forward = new Chains({
    plannedMs: Float64Array.from(audible, (one) => one.plannedMs),
    heardMs: Float64Array.from(marks, (one) => one.atMs),
    worth: Float64Array.from(marks, worthOf),
    talks,
  })
  const chain = forward.best()
  if (!chain.length) return []
  const through = throughScores(forward, audible, marks, talks)
  return stitchesOf(chain, { audible, marks, through })
}

/** What a beep is worth as a tie, whatever it is tied to. */
const worthOf = ({ boundaryLikelihood, strength }: TimerBeep): number => 2.2 * boundaryLikelihood - 0.9 + 0.3 * strength

interface Board {
  /** Of each audible boundary. */
  plannedMs: Float64Array
  /** Of each mark, and what it is worth. */
  heardMs: Float64Array
  worth: Float64Array
  /** How many stretches of talk lie before each boundary: distances across talk mean nothing. */
  talks: readonly number[]
}

interface Link {
  boundary: number
  beep: number
  /** The step to it from the link before keeps the planned distance. */
  regular: boolean
}

/** All chains of ties over one board: for every pair the score of the best chain that ends in it. */
class Chains {
  readonly scores: Float64Array
  private readonly from: Int32Array
  private readonly regular: Uint8Array
  private readonly beeps: number

  constructor(private readonly board: Board) {
    this.beeps = board.heardMs.length
    const pairs = board.plannedMs.length * this.beeps
    this.scores = new Float64Array(pairs)
    this.from = new Int32Array(pairs).fill(-1)
    this.regular = new Uint8Array(pairs)
    const reach = new Reach(this.beeps)
    for (let at = 0; at < board.plannedMs.length; at++) {
      this.start(at)
      for (let earlier = at - 1; earlier >= Math.max(0, at - LOOK_BACK); earlier--) {
        if (board.talks[earlier] !== board.talks[at]) break
        this.stepFrom(earlier, at)
      }
      this.jumpFrom(reach, at)
      reach.take(this.scores, at)
    }
  }

  private start(at: number): void {
    const row = at * this.beeps
    for (let heard = 0; heard < this.beeps; heard++)
      this.scores[row + heard] = (this.board.worth[heard] ?? 0) - UNFILMED_COST * at
  }

  /** Regular steps from one boundary to another. Both lists are in order, so the window only moves on. */
  private stepFrom(earlier: number, at: number): void {
    const { plannedMs, heardMs, worth } = this.board
    const distance = (plannedMs[at] ?? 0) - (plannedMs[earlier] ?? 0)
    const tolerance = TOLERANCE_MS + distance * DRIFT_SHARE
    const missed = MISS_COST * (at - earlier - 1)
    const row = at * this.beeps,
      earlierRow = earlier * this.beeps
    let low = 0
    for (let heard = 1; heard < this.beeps; heard++) {
      const target = (heardMs[heard] ?? 0) - distance
      while (low < heard && (heardMs[low] ?? 0) < target - tolerance) low++
      for (let other = low; other < heard && (heardMs[other] ?? 0) <= target + tolerance; other++) {
        const off = Math.abs((heardMs[other] ?? 0) - target)
        const score = (this.scores[earlierRow + other] ?? 0) + (worth[heard] ?? 0) + 1 - off / tolerance / 2 - missed
        this.offer(row + heard, score, earlierRow + other, 1)
      }
    }
  }

  private jumpFrom(reach: Reach, at: number): void {
    const row = at * this.beeps
    for (let heard = 1; heard < this.beeps; heard++) {
      const boundary = reach.boundary[heard - 1] ?? -1
      if (boundary < 0) continue
      const cost = this.board.talks[boundary] === this.board.talks[at] ? RESTART_COST : OVER_TALK_COST
      const missed = MISS_COST * (at - boundary - 1)
      const score = (reach.score[heard - 1] ?? 0) + (this.board.worth[heard] ?? 0) - cost - missed
      this.offer(row + heard, score, boundary * this.beeps + (reach.beep[heard - 1] ?? 0), 0)
    }
  }

  private offer(pair: number, score: number, from: number, regular: 0 | 1): void {
    if (score <= (this.scores[pair] ?? 0)) return
    this.scores[pair] = score
    this.from[pair] = from
    this.regular[pair] = regular
  }

  /** The score of the chain that ends here, what it leaves unfilmed counted. */
  ending(pair: number): number {
    const boundary = Math.floor(pair / this.beeps)
    return (this.scores[pair] ?? 0) - UNFILMED_COST * (this.board.plannedMs.length - 1 - boundary)
  }

  /** The best chain of all; empty where none is worth anything. */
  best(): Link[] {
    let best = -1,
      most = 0
    for (let pair = 0; pair < this.scores.length; pair++) {
      const score = this.ending(pair)
      if (score > most) [most, best] = [score, pair]
    }
    const chain: Link[] = []
    for (let pair = best; pair >= 0; pair = this.from[pair] ?? -1)
      chain.push({
        boundary: Math.floor(pair / this.beeps),
        beep: pair % this.beeps,
        regular: this.regular[pair] === 1,
      })
    return chain.reverse()
  }
}

/** For every beep the best pair at or before it, over all boundaries so far. Misses are charged at the jump. */
class Reach {
  readonly score: Float64Array
  readonly boundary: Int32Array
  readonly beep: Int32Array

  constructor(beeps: number) {
    this.score = new Float64Array(beeps).fill(-Infinity)
    this.boundary = new Int32Array(beeps).fill(-1)
    this.beep = new Int32Array(beeps).fill(-1)
  }

  take(scores: Float64Array, at: number): void {
    const beeps = this.score.length
    let score = -Infinity,
      boundary = -1,
      beep = -1
    const better = (other: number, its: number): boolean =>
      other - MISS_COST * (at - its) > score - MISS_COST * (at - boundary)
    for (let heard = 0; heard < beeps; heard++) {
      const standing = this.score[heard] ?? -Infinity,
        standingAt = this.boundary[heard] ?? -1
      if (better(standing, standingAt)) [score, boundary, beep] = [standing, standingAt, this.beep[heard] ?? -1]
      const fresh = scores[at * beeps + heard] ?? -Infinity
      if (better(fresh, at)) [score, boundary, beep] = [fresh, at, heard]
      this.score[heard] = score
      this.boundary[heard] = boundary
      this.beep[heard] = beep
    }
  }
}

/** For every pair the score of the best chain that runs through it. */
function throughScores(
  forward: Chains,
  audible: readonly Boundary[],
  marks: readonly TimerBeep[],
  talks: readonly number[],
): Float64Array {
  const backward = new Chains({
    plannedMs: Float64Array.from(audible, (one) => -one.plannedMs).reverse(),
    heardMs: Float64Array.from(marks, (one) => -one.atMs).reverse(),
    worth: Float64Array.from(marks, worthOf).reverse(),
    talks: talks.map((count) => -count).reverse(),
  })
  const last = forward.scores.length - 1
  return forward.scores.map((score, pair) => {
    const mark = marks[pair % marks.length]
    return score + (backward.scores[last - pair] ?? 0) - (mark ? worthOf(mark) : 0)
  })
}

interface Judged {
  audible: readonly Boundary[]
  marks: readonly TimerBeep[]
  through: Float64Array
}

/** Links without a regular neighbour are dropped; the others are ties, each as sure as chain and margin allow. */
function stitchesOf(chain: readonly Link[], judged: Judged): Stitch[] {
  const { audible, marks } = judged
  const held = chain.filter((link, index) => link.regular || chain[index + 1]?.regular)
  const whole = isWhole(held, judged)
  return held.flatMap((link): Stitch[] => {
    const boundary = audible[link.boundary],
      mark = marks[link.beep]
    if (!boundary || !mark) return []
    return [
      {
        segmentId: boundary.segmentId,
        edge: boundary.edge,
        footageMs: Math.round(mark.atMs),
        origin: 'heard',
        confidence: confidenceOf(marginOf(link, judged), whole, mark),
        evidence: ['beep'],
      },
    ]
  })
}

/** Long, nearly without gaps, and with few marks left over: what a timer that ran this very score leaves behind. */
function isWhole(held: readonly Link[], { marks }: Judged): boolean {
  const first = held[0],
    last = held.at(-1)
  if (!first || !last || held.length < LONG_CHAIN) return false
  const changes = last.boundary - first.boundary + 1
  const likely = marks.slice(first.beep, last.beep + 1).filter((mark) => mark.boundaryLikelihood > 0.5)
  return held.length >= FOUND_SHARE * changes && held.length >= USED_SHARE * likely.length
}

/** How much worse the best chain is that ties this boundary to another instant. */
function marginOf({ boundary, beep }: Link, { marks, through }: Judged): number {
  const row = boundary * marks.length
  const atMs = marks[beep]?.atMs ?? 0
  let rival = -Infinity
  marks.forEach((mark, other) => {
    if (Math.abs(mark.atMs - atMs) > SAME_INSTANT_MS) rival = Math.max(rival, through[row + other] ?? -Infinity)
  })
  return (through[row + beep] ?? 0) - rival
}

/** A rule, not yet a measured probability: 0.9 and more is kept for long chains without a rival. */
function confidenceOf(margin: number, whole: boolean, mark: TimerBeep): number {
  if (whole && margin >= UNRIVALLED) return round2(0.93 + 0.04 * mark.boundaryLikelihood + 0.01 * mark.strength)
  return round2(Math.min(MOST_UNSURE, 0.3 + 0.5 * Math.max(0, Math.min(1, margin / UNRIVALLED))))
}

const round2 = (value: number): number => Math.round(value * 100) / 100

function talkCounts(boundaries: readonly Boundary[], audible: readonly Boundary[]): number[] {
  let talks = 0
  const counts = new Map<Boundary, Ms>(boundaries.map((boundary) => [boundary, (talks += Number(boundary.afterTalk))]))
  return audible.map((boundary) => counts.get(boundary) ?? 0)
}
