// What counted stations take, from their moves' seconds per rep and their sides. All of it is estimate.
import { areKnown, type Cast } from '../cast'
import { timeForReps } from '../reps'
import type { Ms } from '../../units'
import { ruleOf, stationIn, type Station } from './station'

/** Reps of a station that counts but says no number. */
export const USUAL_REPS = 10

/** Both sides are done in one turn, so the reps are done twice. */
const doubled = (rule: string): number => (rule === 'each' || rule === 'halves' ? 2 : 1)

/** Seconds of one rep of every move together; for a group that climbs. */
export const secondsPerRepOf = (group: readonly Station[], pass: number, cast: Cast): number =>
  group.reduce((sum, held) => {
    const station = stationIn(held, pass)
    const move = cast(station.label)
    return sum + move.secondsPerRep * doubled(ruleOf(station, move))
  }, 0)

/** Seconds of one time round, every move with its own reps. */
export const groupSeconds = (group: readonly Station[], pass: number, cast: Cast): number =>
  group.reduce((sum, held) => {
    const station = stationIn(held, pass)
    const move = cast(station.label)
    return sum + (station.reps ?? USUAL_REPS) * move.secondsPerRep * doubled(ruleOf(station, move))
  }, 0)

/** How long reps take is a rule of thumb: it never makes an error, and of a guessed move no more than a note. */
export function severityOfReps(cast: Cast, stations: readonly Station[]): 'warning' | 'note' {
  const names = stations.map(({ label }) => label)
  return areKnown(cast, names) ? 'warning' : 'note'
}

/** Time of one interval of a counted station; where each side has its own interval, of one of them. */
export function intervalOf(held: Station, pass: number, cast: Cast): Ms {
  const station = stationIn(held, pass)
  const move = cast(station.label)
  return timeForReps((station.reps ?? USUAL_REPS) * (ruleOf(station, move) === 'halves' ? 2 : 1), move.secondsPerRep)
}
