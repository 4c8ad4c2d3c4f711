// Ties boundaries to beeps. Beeps may be missing, extra or counting; clocks drift and get restarted. The best chain of
// ties is found by dynamic programming over (boundary, beep): regular steps keep the planned distance, a restart
// breaks it at a price, a boundary without a beep costs a little.
import type { TimerBeep } from '../hear/timerBeeps'
import type { Ms } from '../units'
import type { Boundary } from './boundaries'

export interface Stitch {
  segmentId: string
  row: number
  edge: 'start' | 'end'
  footageMs: Ms
  confidence: number
  evidence: ('beep' | 'hand')[]
}

/** A regular step may be off by this much, plus the share below of its length for clock drift. */
const TOLERANCE_MS = 90
const DRIFT_SHARE = 500e-6
const MISS_COST = 0.35
/** Sessions are often filmed in part: what lies before the first tie or after the last hardly counts. */
const UNFILMED_COST = 0.02
const RESTART_COST = 2.4
/** Boundaries further back than this are reached by a restart, not by a regular step. */
const LOOK_BACK = 60

interface Node {
  score: number
  from: { boundary: number; beep: number } | null
  regular: boolean
}

/**
 * @param boundaries all boundaries of the score; those that are not audible are never tied.
 * @param beeps in order of time.
 * @returns ties in order of time. A boundary that is held by no regular neighbour is left out rather than guessed.
 */
export function alignBeeps(boundaries: readonly Boundary[], beeps: readonly TimerBeep[]): Stitch[] {
  const audible = boundaries.filter((boundary) => boundary.audible)
  const talkBefore = talkCounts(boundaries, audible)
  const nodes: Node[][] = []
  let reach: Reach[] = beeps.map(() => NOWHERE)
  audible.forEach((boundary, at) => {
    const row = beeps.map((beep, heard) =>
      bestArrival({ audible, beeps, talkBefore, nodes, reach }, boundary, at, beep, heard),
    )
    nodes.push(row)
    reach = carryReach(reach, row, at)
  })
  return readBack(audible, beeps, nodes)
}

/** Best score of any node at an earlier boundary and an earlier beep, with the price of what was missed since. */
interface Reach {
  score: number
  boundary: number
  beep: number
}
const NOWHERE: Reach = { score: -Infinity, boundary: -1, beep: -1 }

interface Board {
  audible: readonly Boundary[]
  beeps: readonly TimerBeep[]
  talkBefore: readonly number[]
  nodes: readonly Node[][]
  reach: readonly Reach[]
}

function bestArrival(board: Board, boundary: Boundary, at: number, beep: TimerBeep, heard: number): Node {
  const own = 2.2 * beep.boundaryLikelihood - 0.9 + 0.3 * beep.strength
  let best: Node = { score: own - UNFILMED_COST * at, from: null, regular: false }
  for (let earlier = at - 1; earlier >= Math.max(0, at - LOOK_BACK); earlier--) {
    if (board.talkBefore[earlier] !== board.talkBefore[at]) break
    const plannedMs = boundary.plannedMs - (board.audible[earlier]?.plannedMs ?? 0)
    const tolerance = TOLERANCE_MS + plannedMs * DRIFT_SHARE
    const target = beep.atMs - plannedMs
    for (let other = lowerBound(board.beeps, target - tolerance); other < heard; other++) {
      const off = Math.abs((board.beeps[other]?.atMs ?? 0) - target)
      if ((board.beeps[other]?.atMs ?? 0) > target + tolerance) break
      const score =
        (board.nodes[earlier]?.[other]?.score ?? -Infinity) +
        own +
        1 -
        off / tolerance / 2 -
        MISS_COST * (at - earlier - 1)
      if (score > best.score) best = { score, from: { boundary: earlier, beep: other }, regular: true }
    }
  }
  const jump = heard > 0 ? board.reach[heard - 1] : undefined
  if (jump && jump.boundary >= 0) {
    const overTalk = board.talkBefore[jump.boundary] !== board.talkBefore[at]
    const score = jump.score + own - (overTalk ? 0.4 : RESTART_COST) - MISS_COST * (at - jump.boundary - 1)
    if (score > best.score) best = { score, from: { boundary: jump.boundary, beep: jump.beep }, regular: false }
  }
  return best
}

/** For every beep: the best node at or before it, over all boundaries so far. Misses are charged at the jump. */
function carryReach(reach: readonly Reach[], row: readonly Node[], at: number): Reach[] {
  let running = NOWHERE
  return row.map((node, heard) => {
    const standing = reach[heard] ?? NOWHERE
    for (const candidate of [standing, { score: node.score, boundary: at, beep: heard }]) {
      if (worth(candidate, at) > worth(running, at)) running = candidate
    }
    return running
  })
}

const worth = (reach: Reach, at: number): number => reach.score - MISS_COST * (at - reach.boundary)

function readBack(audible: readonly Boundary[], beeps: readonly TimerBeep[], nodes: readonly Node[][]): Stitch[] {
  let at = -1,
    heard = -1,
    bestScore = 0
  nodes.forEach((row, boundary) =>
    row.forEach((node, beep) => {
      const score = node.score - UNFILMED_COST * (audible.length - 1 - boundary)
      if (score > bestScore) [bestScore, at, heard] = [score, boundary, beep]
    }),
  )
  const chain: { boundary: Boundary; beep: TimerBeep; regularBefore: boolean; regularAfter: boolean }[] = []
  let regularAfter = false
  while (at >= 0) {
    const node = nodes[at]?.[heard],
      boundary = audible[at],
      beep = beeps[heard]
    if (!node || !boundary || !beep) break
    chain.push({ boundary, beep, regularBefore: node.regular, regularAfter })
    regularAfter = node.regular
    at = node.from?.boundary ?? -1
    heard = node.from?.beep ?? -1
  }
  return chain
    .reverse()
    .filter((link) => link.regularBefore || link.regularAfter)
    .map(({ boundary, beep, regularBefore, regularAfter: held }) => ({
      segmentId: boundary.segmentId,
      row: boundary.row,
      edge: boundary.edge,
      footageMs: Math.round(beep.atMs),
      confidence: confidenceOf(beep, regularBefore, held),
      evidence: ['beep'],
    }))
}

/** Two regular neighbours and a beep that ends a count are as sure as sound alone can be. */
function confidenceOf(beep: TimerBeep, regularBefore: boolean, regularAfter: boolean): number {
  const neighbours = Number(regularBefore) + Number(regularAfter)
  const base = neighbours === 2 ? 0.93 : 0.86
  return Math.round((base + 0.05 * beep.boundaryLikelihood + 0.01 * beep.strength) * 100) / 100
}

/** How many stretches of talk lie before each audible boundary: distances across talk mean nothing. */
function talkCounts(boundaries: readonly Boundary[], audible: readonly Boundary[]): number[] {
  let talks = 0
  const counts = new Map(boundaries.map((boundary) => [boundary, (talks += Number(boundary.afterTalk))]))
  return audible.map((boundary) => counts.get(boundary) ?? 0)
}

function lowerBound(beeps: readonly TimerBeep[], atMs: Ms): number {
  let low = 0,
    high = beeps.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((beeps[middle]?.atMs ?? 0) < atMs) low = middle + 1
    else high = middle
  }
  return low
}
