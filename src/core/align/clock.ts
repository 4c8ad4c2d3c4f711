// The clock fitted through ties: where score time 0 lies in the footage, and how much faster the footage's clock runs.
import type { Ms, Ppm } from '../units'
import { tieKey, type Boundary } from './boundaries'
import type { Tie } from './ties'

export interface ClockFit {
  /** Footage time of score time 0. */
  offsetMs: number
  /** How much faster the footage's clock runs than the score's. */
  driftPpm: Ppm
}

/** Recorders and timers differ by tens to hundreds of parts per million; what is steeper comes from elsewhere. */
const MOST_DRIFT = 0.001

/**
 * Least squares through ties. Stretches divided by talk (which has no planned length) or by a restarted timer get an
 * offset each, and share one rate. With one tie the rate is 1; with none the offset is 0.
 * @returns the offset of the first stretch that has a tie, and the shared drift.
 */
export function fitClock(boundaries: readonly Boundary[], ties: readonly Tie[]): ClockFit {
  const stretches = tiedStretches(boundaries, ties)
  let products = 0,
    squares = 0
  for (const stretch of stretches) {
    const planned = mean(stretch.map((one) => one.plannedMs))
    const found = mean(stretch.map((one) => one.footageMs))
    for (const one of stretch) {
      products += (one.plannedMs - planned) * (one.footageMs - found)
      squares += (one.plannedMs - planned) ** 2
    }
  }
  const slope = squares ? products / squares : 1
  const rate = Math.abs(slope - 1) <= MOST_DRIFT ? slope : 1
  const first = stretches[0]
  const offsetMs = first ? mean(first.map((one) => one.footageMs)) - rate * mean(first.map((one) => one.plannedMs)) : 0
  return { offsetMs, driftPpm: (rate - 1) * 1e6 }
}

interface Pair {
  plannedMs: Ms
  footageMs: Ms
}

function tiedStretches(boundaries: readonly Boundary[], ties: readonly Tie[]): Pair[][] {
  const at = new Map(ties.map((tie) => [tieKey(tie), tie.footageMs]))
  const stretches: Pair[][] = []
  let open: Pair[] = []
  for (const boundary of boundaries) {
    if (boundary.afterTalk) open = []
    const footageMs = at.get(tieKey(boundary))
    if (footageMs === undefined) continue
    const pair = { plannedMs: boundary.plannedMs, footageMs }
    if (open.length && ties.length > 2 && wasRestarted(open.at(-1), pair)) open = []
    if (!open.length) stretches.push(open)
    open.push(pair)
  }
  return stretches
}

/**
 * More than any clock drifts between two ties: somebody stopped or restarted the timer. Two ties alone are taken at
 * their word.
 */
function wasRestarted(before: Pair | undefined, after: Pair): boolean {
  if (!before) return false
  const plannedMs = after.plannedMs - before.plannedMs
  return Math.abs(after.footageMs - before.footageMs - plannedMs) > Math.max(250, plannedMs * 0.004)
}

const mean = (values: number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length
