// Hypotheses of a timer: which of the pitches that return are its own.
import { byTime } from '../evidence'
import { pitchFamilies, timerBeeps, type TimerBeep } from '../hear/timerBeeps'
import type { Beep } from '../hear/tones'
import { SECOND, type Ms } from '../units'
import {
  EITHER,
  FEWEST_MARKS,
  logWithoutScore,
  runsOf,
  seenMs,
  TIMER_MS,
  type Hypothesis,
  type Mark,
  type Run,
} from './marks'

const RUNS: readonly Run[] = [
  { prior: 0.64, marked: 0.96, timed: 0.94, others: null },
  { prior: 0.36, marked: 0.6, timed: 0.85, others: null },
]
/** So many pitches are tried as the timer's at most. */
const MOST_PITCHES = 10
/** A timer may have a pitch for work, one for rest and one for the end; more of them are music. */
const MOST_TOGETHER = 4
const WHOLE_COUNT = 3
/** How far a mark that was not heard may be from a second after its count. */
const UNHEARD_MS = 12
/** Seconds of a count are this even. */
const COUNT_MS = 120
/** A beep less likely than this to mark a change is a second on the way to one. */
const LEAST_LIKELY = 0.4

export function tonedBy(beeps: readonly Beep[], expected: number, footageMs: Ms, stepMs: Ms): Hypothesis[] {
  const far = (held: readonly TimerBeep[]): number => Math.abs(Math.log(held.length / expected))
  const pitches = pitchFamilies(beeps).map(marksOf)
  const families = pitches
    .filter((held) => held.length >= FEWEST_MARKS && !pitches.some((other) => other !== held && leadsTo(held, other)))
    .sort((one, other) => far(one) - far(other))
    .slice(0, MOST_PITCHES)
  const sigmaMs = Math.hypot(Math.max(TIMER_MS, stepMs / 2), seenMs(TIMER_MS / 4, stepMs))
  const one = families.map((held) => ({ held, nullLog: logWithoutScore(held, footageMs, sigmaMs) }))
  const together = marksOf(timerBeeps(beeps))
  const all = {
    held: together,
    // Labelled by pitch, as the families are.
    nullLog:
      one.reduce((sum, { nullLog }) => sum + nullLog, 0) -
      families.reduce((sum, { length }) => sum + length * Math.log(length / together.length), 0),
  }
  const several = families.length > 1 && families.length <= MOST_TOGETHER
  const sets = several ? [...one, all] : one
  return sets.flatMap(({ held, nullLog }) => {
    const marks = withUnheard(held).map((beep): Mark => ({ ...beep, workShare: EITHER }))
    return runsOf(RUNS, { marks, count: held.length, nullLog, expected, footageMs }).map((run) => ({
      ...run,
      prior: run.prior / sets.length,
    }))
  })
}

const marksOf = (held: readonly TimerBeep[]): TimerBeep[] =>
  held.filter(({ boundaryLikelihood }) => boundaryLikelihood >= LEAST_LIKELY)

/** Most tones of one pitch are followed by the other a second later, or two or three: they count down to it. */
function leadsTo(held: readonly TimerBeep[], other: readonly TimerBeep[]): boolean {
  let at = 0
  const followed = held.filter(({ atMs }) => {
    while ((other[at]?.atMs ?? Infinity) < atMs + SECOND - COUNT_MS) at++
    const afterMs = (other[at]?.atMs ?? Infinity) - atMs
    const seconds = Math.round(afterMs / SECOND)
    return seconds <= WHOLE_COUNT && Math.abs(afterMs - seconds * SECOND) < COUNT_MS
  })
  return followed.length > held.length / 2
}

/** The mark after a count may have come unheard, some seconds after what was heard of it: counts are of three. */
const withUnheard = (held: readonly TimerBeep[]): TimerBeep[] =>
  held
    .flatMap((one) => {
      const later = one.countedS ? Math.max(1, WHOLE_COUNT + 1 - one.countedS) : 0
      const boundaryLikelihood = one.boundaryLikelihood / (later + 1)
      const unheard = Array.from({ length: later }, (_, index) => ({
        ...{ ...one, boundaryLikelihood, atMs: one.atMs + (index + 1) * SECOND, spreadMs: one.spreadMs + UNHEARD_MS },
      }))
      return [later ? { ...one, boundaryLikelihood } : one, ...unheard]
    })
    .sort(byTime)
