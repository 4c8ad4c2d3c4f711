// Who plays: the facts of each move by name. A score's own moves stand before those that come with Jivet.
import type { Move } from './moves'
import { moveNamed, sameName } from './moves'

export type Cast = (name: string) => Move

/** Reps of a move that nobody has timed; about the pace of a squat done with care. */
const USUAL_SECONDS_PER_REP = 3

const unknownMove = (name: string): Move => ({
  name,
  short: name,
  cue: '',
  posture: 'standing',
  muscles: [],
  impact: 'still',
  effort: 3,
  sideRule: 'none',
  gear: [],
  easier: '',
  harder: '',
  caution: '',
  secondsPerRep: USUAL_SECONDS_PER_REP,
  tags: [],
})

/** Looks moves up, whatever their capitals; a name that nobody knows gets plain facts and no muscles. */
export function castOf(moves: readonly Move[]): Cast {
  const own = new Map(moves.map((move) => [move.name.trim().toLowerCase(), move]))
  const met = new Map<string, Move>()
  return (name) => {
    const before = met.get(name)
    if (before) return before
    const move = own.get(name.trim().toLowerCase()) ?? moveNamed(name) ?? unknownMove(name)
    met.set(name, move)
    return move
  }
}

/** Whether the facts of this name are anybody's: false for a name that is only a label. */
export const isKnown = (moves: readonly Move[], name: string): boolean =>
  moveNamed(name) !== undefined || moves.some((move) => sameName(move.name, name))
