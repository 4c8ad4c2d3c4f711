// The moves that come with Jivet: what a station is filled with when one of these names is chosen.
import type { Posture, SideRule } from './postures'

export interface Move {
  name: string
  posture: Posture
  /** 1 (easy) to 5 (all out); the height of the land. */
  effort: number
  sideRule: SideRule
}

const move = (name: string, posture: Posture, effort: number, sideRule: SideRule = 'none'): Move =>
  ({ name, posture, effort, sideRule })

export const MOVES: readonly Move[] = [
  move('Jug lift', 'standing', 3, 'alternate'),
  move('Lock-gate push', 'handsFeet', 4),
  move('Gangway step', 'standing', 5, 'alternate'),
  move('Towel tear', 'standing', 2),
  move('Rope pull', 'kneeling', 3),
  move('Bilge crawl', 'handsFeet', 4),
  move('Tiller twist', 'seated', 2, 'halves'),
  move('Lantern reach', 'standing', 2, 'alternate'),
  move('Cabin-step dip', 'faceUp', 4),
  move('Keel hold', 'faceDown', 3),
  move('Hatch bridge', 'faceUp', 2),
  move('Heel digs', 'standing', 1),
  move('Deck-rail squat', 'standing', 4),
  move('Anchor row', 'kneeling', 3, 'alternate'),
]

const BY_NAME = new Map(MOVES.map((entry) => [entry.name.toLowerCase(), entry]))

/** The move of that name, whatever its capitals; undefined for a name of the creator's own. */
export function moveNamed(name: string): Move | undefined {
  return BY_NAME.get(name.trim().toLowerCase())
}
