// Hypotheses of a timer: which of the pitches that return are its own.
import { byTime } from '../evidence'
import { pitchFamilies, timerBeeps, type TimerBeep } from '../hear/timerBeeps'
import type { Beep } from '../hear/tones'
import { sum } from '../sum'
import { SECOND, type Ms, type Share } from '../units'
import {
  EITHER,
  FEWEST_MARKS,
  logPoisson,
  logWithoutScore,
  runsOf,
  seenMs,
  strayRate,
  TIMER_MS,
  type Hypothesis,
  type Mark,
  type Run,
} from './marks'

/** Partials by which a tone may be heard instead of the one that is usually heard, as multiples of it. */
const OVERTONES = [1 / 3, 1 / 2, 2, 3] as const
/** They are as exact as this. */
const OVERTONE_TOLERANCE = 0.004
/** Partials of one tone are heard to begin this near to one another. */
const TOGETHER_MS = 60
/** So many of the tones of a timer that is heard in part are heard by another of their partials. */
const DROWNED: Share = 0.25

const RUNS: readonly Run[] = [
  { prior: 0.64, marked: 0.96, drowned: 0, timed: 0.94, others: null },
  { prior: 0.36, marked: 0.6, drowned: DROWNED, timed: 0.85, others: null },
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
      sum(one.map(({ nullLog }) => nullLog)) -
      sum(families.map(({ length }) => length * Math.log(length / together.length))),
  }
  const several = families.length > 1 && families.length <= MOST_TOGETHER
  const sets = several ? [...one, all] : one
  return sets.flatMap(({ held, nullLog }) => {
    const own = withUnheard(held).map((beep): Mark => ({ ...beep, workShare: EITHER }))
    const overtones = held === together ? [] : overtonesOf(held, beeps, { expected, footageMs })
    const marks = [...own, ...overtones.flatMap((partial) => partial.marks)].sort(byTime)
    const drownedLog = overtones.length ? overtonesLog(overtones, { held, nullLog, footageMs, sigmaMs }) : 0
    return runsOf(RUNS, { marks, count: held.length, nullLog, expected, footageMs }).map((run) => ({
      ...run,
      drowned: overtones.length ? run.drowned : 0,
      logCount: run.logCount + (run.drowned ? drownedLog : 0),
      prior: run.prior / sets.length,
    }))
  })
}

/** Tones of one overtone of a timer's pitch, as marks. */
interface Overtone {
  marks: readonly Mark[]
  strayPerMs: number
}

/**
 * A timer whose pitch is drowned may be heard by an overtone of it, or by the pitch itself where the overtone is what
 * is usually heard.
 */
function overtonesOf(
  held: readonly TimerBeep[],
  beeps: readonly Beep[],
  { expected, footageMs }: { expected: number; footageMs: Ms },
): Overtone[] {
  const hz = sum(held.map((one) => one.hz)) / held.length
  // What sounds with the pitch itself says nothing that the pitch does not.
  const isAlone = ({ atMs }: Beep): boolean => held.every((one) => Math.abs(one.atMs - atMs) > TOGETHER_MS)
  const heard = OVERTONES.map((times) =>
    beeps.filter((one) => Math.abs(one.hz / (times * hz) - 1) < OVERTONE_TOLERANCE && isAlone(one)),
  )
  const partials = heard.filter(({ length }) => length)
  return partials.map((tones): Overtone => {
    const strayPerMs = strayRate(tones.length, (DROWNED * expected) / partials.length, footageMs)
    // Each partial that is heard at all is as likely to be the one.
    const overtonePerMs = strayPerMs * partials.length
    const marks = tones.map((beep): Mark => ({ ...beep, workShare: EITHER, boundaryLikelihood: EITHER, overtonePerMs }))
    return { marks, strayPerMs }
  })
}

/**
 * How much likelier overtones are of a timer that would have made some of them: they are music's as well. Nor need it
 * be this score's timer: a chime has overtones too, and all of its tones together are as regular as it is.
 */
function overtonesLog(
  overtones: readonly Overtone[],
  { held, nullLog, footageMs, sigmaMs }: { held: readonly TimerBeep[]; nullLog: number; footageMs: Ms; sigmaMs: Ms },
): number {
  const counted = overtones.map(({ marks: { length }, strayPerMs }) => logPoisson(length, strayPerMs, footageMs))
  const byChance = overtones.map(({ marks: { length } }) => logPoisson(length, length / footageMs, footageMs))
  const partials = [held, ...overtones.map(({ marks }) => marks)]
  const tones = partials.flat().sort(byTime)
  const labels = partials.map(({ length }) => length * Math.log(length / tones.length))
  const without = Math.max(nullLog + sum(byChance), logWithoutScore(tones, footageMs, sigmaMs) + sum(labels))
  return nullLog + sum(counted) - without
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
