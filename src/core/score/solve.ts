// From the promise to the plan: rounds, work and rest that meet a length, and another number to change so that a total stays.
import { tryExpand } from '../expand/expand'
import type { Ms } from '../units'
import { expandSection, newSection, notationOf, type FormatName, type Section } from './formats'
import type { Around } from './formats/format'
import { newStation } from './formats/station'
import type { Score } from './score'

interface Knobs {
  times: string
  work: string
  rest: string | null
  timesLow: number
  timesHigh: number
}

const knobs = (times: string, work: string, rest: string | null, timesLow = 1, timesHigh = 12): Knobs => ({
  times,
  work,
  rest,
  timesLow,
  timesHigh,
})

/** The formats that a promise can be solved for, with the numbers that are sought. */
export const SOLVABLE = {
  circuit: knobs('rounds', 'workMs', 'restMs'),
  byStation: knobs('sets', 'workMs', 'restMs'),
  pairs: knobs('times', 'workMs', 'restMs'),
  burst: knobs('intervals', 'workMs', 'restMs', 4, 16),
  ladder: knobs('rungs', 'startMs', 'stepMs', 3, 10),
  slot: knobs('steps', 'startMs', 'stepMs', 2, 12),
  growingBreak: knobs('rounds', 'workMs', 'breakMs'),
  compound: knobs('passes', 'longMs', 'shortMs', 1, 6),
  uneven: knobs('rounds', 'workMs', 'restMs'),
  minuteTime: knobs('rounds', 'workMs', null, 1, 20),
} as const satisfies Partial<Record<FormatName, Knobs>>
export type SolvableFormat = keyof typeof SOLVABLE
export const SOLVABLE_FORMATS = Object.keys(SOLVABLE) as SolvableFormat[]

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
  format: SolvableFormat
  moves: number
  lastRest?: 'kept' | 'replaced' | 'dropped'
}

const WORKS: readonly Ms[] = [20, 25, 30, 35, 40, 45, 50, 60].map((seconds) => seconds * 1000)
const RESTS: readonly Ms[] = [5, 10, 15, 20, 25, 30, 40].map((seconds) => seconds * 1000)

/**
 * The plans nearest to a promise, best first: nearest in time, then with work once to three times the rest, then the
 * usual thirty to forty-five seconds. Plans that differ in rounds come before variations of one.
 */
export function solvePromise(promise: Wish, around: Around, most = 5): Solution[] {
  const { times: timesField, work: workField, rest: restField, timesLow, timesHigh } = SOLVABLE[promise.format]
  const base = sectionOf(promise)
  const all: Solution[] = []
  for (let times = timesLow; times <= timesHigh; times++) {
    for (const workMs of WORKS) {
      for (const restMs of restField ? RESTS : [null]) {
        const section = {
          ...base,
          [timesField]: times,
          [workField]: workMs,
          ...(restField ? { [restField]: restMs } : {}),
        } as unknown as Section
        const totalMs = expandSection(section, around).reduce((sum, segment) => sum + segment.durationMs, 0)
        if (totalMs > promise.totalMs * 1.6 && restMs === RESTS[0]) break
        all.push({ section, totalMs, offMs: totalMs - promise.totalMs, times, workMs, restMs })
      }
    }
  }
  const cost = ({ offMs, workMs, restMs }: Solution): number => {
    const ratio = restMs ? workMs / restMs : 2
    return (
      Math.abs(offMs) + (ratio < 1 ? 20_000 : ratio > 3 ? 8000 : 0) + (workMs < 30_000 || workMs > 45_000 ? 3000 : 0)
    )
  }
  all.sort((one, other) => cost(one) - cost(other))
  const best: Solution[] = []
  for (const one of all) {
    if (best.length >= most) break
    if (best.filter((other) => other.times === one.times).length < Math.ceil(most / 3)) best.push(one)
  }
  return best
}

function sectionOf({ format, moves, lastRest = 'replaced' }: Wish): Section {
  const base = { ...newSection(format, 'main', 'Main') } as unknown as Record<string, unknown>
  if ('lastRest' in base) base.lastRest = lastRest
  const labels = Array.from({ length: Math.max(1, moves) }, (_, index) => newStation(`Move ${index + 1}`))
  const size = notationOf(format).groupSize?.[1] === 2 ? 2 : 1
  if ('stations' in base) base.stations = labels
  else if (format === 'compound' || format === 'uneven') base.groups = [labels]
  else
    base.groups = Array.from({ length: Math.ceil(labels.length / size) }, (_, at) =>
      labels.slice(at * size, (at + 1) * size),
    )
  return base as unknown as Section
}

export interface Kept {
  field: string
  value: number
  totalMs: Ms
}

/**
 * What one number of a section must become for the whole to last `wantedMs`. Lengths are found to the millisecond,
 * counts to the nearest whole.
 * @returns null where the number cannot do it.
 */
export function keepTotal(score: Score, sectionKey: string, field: string, wantedMs: Ms): Kept | null {
  const section = score.sections.find((one) => one.key === sectionKey)
  const known = section && notationOf(section.format).fields.find((one) => one.field === field)
  if (!section || !known || (known.kind !== 'length' && known.kind !== 'count')) return null
  const low = known.kind === 'count' ? known.low : 0,
    high = known.kind === 'count' ? known.high : 3_600_000
  const totalWith = (value: number): number => {
    const changed = {
      ...score,
      sections: score.sections.map((one) => (one.key === sectionKey ? ({ ...one, [field]: value } as Section) : one)),
    }
    return tryExpand(changed).expansion?.totalMs ?? Infinity
  }
  // Totals grow, or shrink, evenly enough with a number for halving to find where they cross.
  const grows = totalWith(Math.min(high, low + (known.kind === 'count' ? 1 : 1000))) >= totalWith(low)
  let from = low,
    to = high
  while (from < to) {
    const middle = Math.floor((from + to) / 2)
    if (totalWith(middle) >= wantedMs === grows) to = middle
    else from = middle + 1
  }
  const near = [from - 1, from]
    .filter((value) => value >= low && value <= high)
    .map((value) => ({ field, value, totalMs: totalWith(value) }))
    .sort((one, other) => Math.abs(one.totalMs - wantedMs) - Math.abs(other.totalMs - wantedMs))[0]
  if (!near || !Number.isFinite(near.totalMs)) return null
  return known.kind === 'count' || Math.abs(near.totalMs - wantedMs) < 1000 ? near : null
}
