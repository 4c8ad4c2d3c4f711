// Who plays: the facts of each move by name. A score's own moves stand before those that come with Jivet. What is only
// guessed says so, and what nobody knows stays unknown: no default stands in for a fact.
import type { Move } from './moves'
import { MOVES, OTHER_NAMES_OF } from './moves'
import type { Impact, Posture } from './postures'
import { Recogniser, type Reason, type Recognised } from './recognise'

export type Sureness = Recognised['sure']

/** The facts of a name, as far as they are known. */
export interface Facts extends Omit<Move, 'posture' | 'impact' | 'effort'> {
  sure: Sureness
  posture: Posture | null
  /** Where the body is at its end; unlike the start for moves that are several in one. */
  endPosture: Posture | null
  impact: Impact | null
  effort: number | null
  /** What a guess rests on; nothing for what is known. */
  because: readonly Reason[]
}

export type Cast = (name: string) => Facts

/** Reps of a move that nobody has timed; about the pace of a squat done with care. Lengths made of it are estimates. */
const USUAL_SECONDS_PER_REP = 3

const unknown = (name: string): Facts => ({
  ...{ name, short: name, cue: '', easier: '', harder: '', caution: '' },
  ...{ sure: 'unknown', because: [], posture: null, endPosture: null, impact: null, effort: null },
  ...{
    muscles: [],
    sideRule: 'none',
    standingLeg: 'unknown',
    gear: [],
    secondsPerRep: USUAL_SECONDS_PER_REP,
    tags: [],
  },
})

const shipped = new Recogniser(MOVES, OTHER_NAMES_OF)

/** Looks moves up by any name; what is found is remembered, so that a score's many intervals ask once. */
export function castOf(moves: readonly Move[]): Cast {
  const recogniser = moves.length ? new Recogniser(moves, [], shipped) : shipped
  const met = new Map<string, Facts>()
  return (name) => {
    const before = met.get(name)
    if (before) return before
    const facts = factsOf(name, recogniser.recognise(name))
    met.set(name, facts)
    return facts
  }
}

const known = (move: Move): Facts => ({ ...move, sure: 'known', endPosture: move.posture, because: [] })
/** Made once: a score is unfolded at every keystroke. */
const SHIPPED: ReadonlyMap<Move, Facts> = new Map(MOVES.map((move) => [move, known(move)]))

function factsOf(name: string, found: Recognised): Facts {
  switch (found.sure) {
    case 'unknown':
      return unknown(name)
    case 'known':
      return SHIPPED.get(found.move) ?? known(found.move)
    case 'guessed':
      return { ...found.move, sure: 'guessed', endPosture: found.endPosture, because: found.because }
  }
}

/** Whether all that a check asks of these moves is known; else what it finds rests on a guess. */
export const areKnown = (cast: Cast, names: readonly string[]): boolean =>
  names.every((name) => cast(name).sure === 'known')
