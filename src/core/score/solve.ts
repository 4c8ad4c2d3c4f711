// From the promise to the plan: rounds, work and rest that meet a length, and another number to change so that a total
// stays.
import { tryExpand } from '../expand/expand'
import { SECOND, type Ms } from '../units'
import { expandSection, formatNamed, formatOf, SOLVABLE, type FormatName, type Section } from './formats'
import type { LastRest } from './formats/fields'
import type { Around, Knobs } from './formats/format'
import { withKeys } from './formats/keys'
import { newStation } from './formats/station'
import type { Score } from './score'

export interface Solution {
  section: Section
  totalMs: Ms
  /** Above the promise when positive. */
  offMs: Ms
  times: number
  workMs: Ms
  restMs: Ms | null
}

export interface Wish {
  /** What this section may take. */
  totalMs: Ms
  format: FormatName
  moves: number
  lastRest?: LastRest
}

const WORKS: readonly Ms[] = [20, 25, 30, 35, 40, 45, 50, 60].map((seconds) => seconds * 1000)
const RESTS: readonly Ms[] = [5, 10, 15, 20, 25, 30, 40].map((seconds) => seconds * 1000)

/**
 * The plans nearest to a promise, best first: nearest in time, then with work once to three times the rest, then the
 * usual thirty to forty-five seconds. Plans that differ in rounds come before variations of one. None for a format
 * that has nothing to solve for.
 */
export function solvePromise(wish: Wish, around: Around, most = 5): Solution[] {
  const solve = SOLVABLE.get(wish.format)
  if (!solve) return []
  const all = plansFor(wish, solve, around)
  all.sort((one, other) => costOf(one) - costOf(other))
  const best: Solution[] = []
  for (const one of all) {
    if (best.length >= most) break
    if (best.filter((other) => other.times === one.times).length < Math.ceil(most / 3)) best.push(one)
  }
  return best
}

function plansFor(wish: Wish, solve: Knobs, around: Around): Solution[] {
  const base = sectionOf(wish, solve)
  const all: Solution[] = []
  for (let times = solve.timesLow; times <= solve.timesHigh; times++) {
    for (const workMs of WORKS) {
      for (const restMs of solve.rest ? RESTS : [null]) {
        const numbers = { [solve.times]: times, [solve.work]: workMs, ...(solve.rest ? { [solve.rest]: restMs } : {}) }
        const section = { ...base, ...numbers } as Section
        const totalMs = expandSection(section, around).reduce((sum, segment) => sum + segment.durationMs, 0)
        if (totalMs > wish.totalMs * 1.6 && restMs === RESTS[0]) break
        all.push({ section, totalMs, offMs: totalMs - wish.totalMs, times, workMs, restMs })
      }
    }
  }
  return all
}

function costOf({ offMs, workMs, restMs }: Solution): number {
  const ratio = restMs ? workMs / restMs : 2
  const ofRatio = ratio < 1 ? 20_000 : ratio > 3 ? 8000 : 0
  return Math.abs(offMs) + ofRatio + (workMs < 30_000 || workMs > 45_000 ? 3000 : 0)
}

function sectionOf({ format, moves, lastRest = 'replaced' }: Wish, { oneGroup = false }: Knobs): Section {
  const { defaults, notation } = formatNamed(format)
  const base = defaults('main', 'Main')
  const stations = Array.from({ length: Math.max(1, moves) }, (_, index) => newStation(`Move ${index + 1}`))
  const size = oneGroup ? stations.length : notation.groupSize?.[1] === 2 ? 2 : 1
  const groups = Array.from({ length: Math.ceil(stations.length / size) }, (_, at) =>
    stations.slice(at * size, (at + 1) * size),
  )
  const held: Section = 'stations' in base ? { ...base, stations } : 'groups' in base ? { ...base, groups } : base
  return withKeys('lastRest' in held ? { ...held, lastRest } : held)
}

export interface Kept {
  field: string
  value: number
  totalMs: Ms
}

/** Where nothing is promised yet. */
const USUAL_PROMISE: Ms = 900_000

/** How long a part has to be: what is left of the promise; the whole of it where the plan has used it up already. */
export const msToFill = ({ promiseMs }: Score, totalMs: Ms): Ms =>
  promiseMs === null ? USUAL_PROMISE : promiseMs > totalMs ? promiseMs - totalMs : promiseMs

/** The longest that a number is changed to, so that a total stays. */
const LONGEST_KEPT: Ms = 3_600_000

/**
 * What one number of a section must become for the whole to last `wantedMs`: whole seconds for lengths, as nobody plans
 * in fractions, whole numbers for counts.
 * @returns null where the number cannot do it: where a second more or less of it leaves the total further off.
 */
export function keepTotal(score: Score, sectionKey: string, field: string, wantedMs: Ms): Kept | null {
  const section = score.sections.find((one) => one.key === sectionKey)
  const known = section && formatOf(section).notation.fields.find((one) => one.field === field)
  if (!section || !known || (known.kind !== 'length' && known.kind !== 'count')) return null
  const step = known.kind === 'count' ? 1 : SECOND
  const [low, high] = known.kind === 'count' ? [known.low, known.high] : [0, LONGEST_KEPT / SECOND]
  const kept = (steps: number): Kept => {
    const value = steps * step
    const changed = {
      ...score,
      sections: score.sections.map((one) => (one.key === sectionKey ? ({ ...one, [field]: value } as Section) : one)),
    }
    return { field, value, totalMs: tryExpand(changed).expansion?.totalMs ?? Infinity }
  }
  // The least value stands apart: a break of nothing is no break, and the rest that it stood in for comes back.
  const near = nearestOf([kept(low), ...crossing(kept, low + 1, high, wantedMs)], wantedMs)
  if (!near || known.kind === 'count') return near ?? null
  const second = Math.abs(kept(near.value / step + 1).totalMs - near.totalMs)
  return Math.abs(near.totalMs - wantedMs) <= Math.max(SECOND, second) / 2 ? near : null
}

/** Totals grow, or shrink, evenly enough with a number for halving to find where they cross what is wanted. */
function crossing(kept: (steps: number) => Kept, low: number, high: number, wantedMs: Ms): Kept[] {
  const grows = kept(high).totalMs >= kept(low).totalMs
  let from = low,
    to = high
  while (from < to) {
    const middle = Math.floor((from + to) / 2)
    if (kept(middle).totalMs >= wantedMs === grows) to = middle
    else from = middle + 1
  }
  return [from - 1, from].filter((value) => value >= low && value <= high).map(kept)
}

const nearestOf = (found: readonly Kept[], wantedMs: Ms): Kept | undefined =>
  found
    .filter(({ totalMs }) => Number.isFinite(totalMs))
    .sort((one, other) => Math.abs(one.totalMs - wantedMs) - Math.abs(other.totalMs - wantedMs))[0]
