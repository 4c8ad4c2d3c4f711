// Rep arithmetic: what a number of reps takes, and what a time holds. All from seconds per rep, so all of it is
// estimate.
import type { Ms } from '../units'
import type { Cast } from './cast'
import type { Segment } from './segment'

/** Time for a number of reps. */
export const timeForReps = (reps: number, secondsPerRep: number): Ms => Math.round(reps * secondsPerRep * 1000)

/** Whole reps that fit in a time. */
export const repsInTime = (ms: Ms, secondsPerRep: number): number =>
  secondsPerRep > 0 ? Math.floor(ms / 1000 / secondsPerRep + 1e-9) : 0

/** What is left of an interval for the move after a buy-in of so many seconds; never below nothing. */
export const leftAfterBuyIn = (intervalMs: Ms, buyInSeconds: number): Ms =>
  Math.max(0, intervalMs - Math.round(buyInSeconds * 1000))

/**
 * Reps to expect of a timed interval of one move; null for holds and stretches, for what is counted already, and for
 * several moves.
 */
export function expectedReps(
  segment: Pick<Segment, 'kind' | 'reps' | 'moves' | 'durationMs' | 'estimated'>,
  cast: Cast,
): number | null {
  const [name, ...more] = segment.moves
  if (segment.kind !== 'work' || segment.reps !== null || segment.estimated || name === undefined || more.length)
    return null
  const move = cast(name)
  return move.tags.includes('hold') || move.tags.includes('stretch')
    ? null
    : repsInTime(segment.durationMs, move.secondsPerRep)
}

/** Times round a couplet in its time, with one decimal for the part done. `lapMs` is one time round. */
export const timesRound = (ms: Ms, lapMs: Ms): number => (lapMs > 0 ? Math.floor((ms / lapMs) * 10 + 1e-9) / 10 : 0)

export interface Climb {
  startReps: number
  stepReps: number
  /** Seconds that one rep of every move of the group takes together. */
  secondsPerRep: number
}

/** Reps of each move on a rung (1-based). */
export const repsOnRung = ({ startReps, stepReps }: Climb, rung: number): number => startReps + (rung - 1) * stepReps

/** The last rung finished before the time is up; 0 when not even the first is. */
export function rungReached(climb: Climb, ms: Ms): number {
  let spent = 0,
    rung = 0
  if (climb.startReps <= 0 && climb.stepReps <= 0) return 0
  for (; rung < 10_000; rung++) {
    spent += timeForReps(repsOnRung(climb, rung + 1), climb.secondsPerRep)
    if (spent > ms) break
    if (climb.secondsPerRep <= 0) return 0
  }
  return rung
}

/** Time to come back down from a rung to the first, that rung done again. */
export function descentMs(climb: Climb, fromRung: number): Ms {
  const reps = fromRung * climb.startReps + (climb.stepReps * fromRung * (fromRung - 1)) / 2
  return timeForReps(reps, climb.secondsPerRep)
}

/**
 * An every-minute set: what is left of the slot, and the reps to add (above 0) or take (below) so that the rest comes
 * nearest to what is wanted without falling short of it.
 */
export function earnedRest(
  slotMs: Ms,
  reps: number,
  secondsPerRep: number,
  wantedRestMs: Ms,
): { restMs: Ms; change: number } {
  const restMs = slotMs - timeForReps(reps, secondsPerRep)
  if (secondsPerRep <= 0) return { restMs, change: 0 }
  const most = repsInTime(Math.max(0, slotMs - wantedRestMs), secondsPerRep)
  return { restMs, change: Math.max(1, most) - reps }
}
