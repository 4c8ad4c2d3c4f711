// Which of the tones heard come from the timer: those of a pitch that returns, and what part each plays in a count.
import type { Beep } from './tones'

export type TimerBeep = Beep & {
  /** How likely this beep marks a boundary and not a second on the way to one; 0 to 1. */
  boundaryLikelihood: number
  /**
   * Of a count that it ends and whose rest it sounds like, the seconds that were heard, this one too; else 0. The mark
   * may have come later, unheard.
   */
  countedS: number
}

/** Same pitch: within this share of each other. */
const PITCH_TOLERANCE = 0.012
const FEWEST_OF_A_PITCH = 3

/** @param beeps in order of time. @returns those of recurring pitches, each with its part. */
export function timerBeeps(beeps: readonly Beep[]): TimerBeep[] {
  const pitches = recurringPitches(beeps)
  const timers = beeps.filter((beep) => pitches.some((hz) => samePitch(hz, beep.hz)))
  return withParts(timers)
}

const samePitch = (one: number, other: number): boolean => Math.abs(one / other - 1) < PITCH_TOLERANCE

/** Beeps of one pitch together, for every pitch that returns; what each may be is seen among its own pitch alone. */
export const pitchFamilies = (beeps: readonly Beep[]): TimerBeep[][] =>
  recurringPitches(beeps).map((hz) => withParts(beeps.filter((beep) => samePitch(hz, beep.hz))))

const withParts = (timers: readonly Beep[]): TimerBeep[] =>
  timers.map((beep, index) => ({ ...beep, ...partOf(timers, index) }))

function recurringPitches(beeps: readonly Beep[]): number[] {
  const families: { hz: number; count: number }[] = []
  for (const beep of beeps) {
    const family = families.find((one) => samePitch(one.hz, beep.hz))
    if (family) {
      family.count++
      family.hz += (beep.hz - family.hz) / family.count
    } else families.push({ hz: beep.hz, count: 1 })
  }
  return families.filter((family) => family.count >= FEWEST_OF_A_PITCH).map((family) => family.hz)
}

/**
 * A beep with another a second later is a count; one at the end of a count, longer or of another pitch, is the mark.
 */
function partOf(timers: readonly Beep[], index: number): Pick<TimerBeep, 'boundaryLikelihood' | 'countedS'> {
  const beep = timers[index]
  if (!beep) return { boundaryLikelihood: 0, countedS: 0 }
  const secondsTo = (other: Beep): number => Math.abs(other.atMs - beep.atMs) / 1000
  const isSecond = (other: Beep, seconds: number): boolean => Math.abs(secondsTo(other) - seconds) < 0.12
  const after = timers.slice(index + 1, index + 4)
  const before = timers.slice(Math.max(0, index - 4), index)
  if (after.some((other) => isSecond(other, 1))) return { boundaryLikelihood: 0.15, countedS: 0 }
  const counts = [1, 2, 3].filter((seconds) => before.some((other) => isSecond(other, seconds))).length
  const previous = before.at(-1)
  const differs =
    previous !== undefined &&
    isSecond(previous, 1) &&
    (beep.durationMs > previous.durationMs * 1.6 || !samePitch(beep.hz, previous.hz))
  if (counts > 0 && !differs) return { boundaryLikelihood: 0.5, countedS: counts + 1 }
  return { boundaryLikelihood: Math.min(1, 0.6 + counts * 0.08 + (differs ? 0.16 : 0)), countedS: 0 }
}
