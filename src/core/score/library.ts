// The creator's library and a score: a score keeps the facts of the moves it names, so that it can stand alone and what
// was published stays as it was.
import { labelledIn } from './formats'
import type { Move } from './move'
import { MOVES, sameName } from './moves'
import type { Score } from './score'

/** Every name of a move in a score, in order, each once. */
export function namesIn(score: Score): string[] {
  const names = new Set<string>()
  for (const section of score.sections) {
    for (const held of labelledIn(section)) {
      if (!('kind' in held) || held.kind === 'work') names.add(held.label)
      if ('swaps' in held) for (const swap of held.swaps) names.add(swap.label)
    }
  }
  return [...names]
}

/** The creator's own moves and those that ship, by name; one's own stands for the one that ships. */
export function libraryOf(own: readonly Move[]): Move[] {
  return [...own, ...MOVES.filter((move) => !own.some((one) => sameName(one.name, move.name)))].sort((one, other) =>
    one.name.localeCompare(other.name),
  )
}

/** Adds, in place, the library's own moves that the score names and does not know yet. */
export function withLibrary(score: Score, own: readonly Move[]): void {
  if (!own.length) return
  for (const name of namesIn(score)) {
    const move = own.find((one) => sameName(one.name, name))
    if (move && !score.moves.some((known) => sameName(known.name, name))) score.moves.push({ ...move })
  }
}

export const uses = (score: Score, move: string): boolean => namesIn(score).some((name) => sameName(name, move))

/** Puts new facts of a move into a score that uses it. @param was the name before, where it has changed. */
export function changeMove(score: Score, move: Move, was = move.name): void {
  const rename = (held: { label: string }): void => {
    if (sameName(held.label, was)) held.label = move.name
  }
  for (const held of score.sections.flatMap(labelledIn)) {
    rename(held)
    if ('swaps' in held) held.swaps.forEach(rename)
  }
  score.moves = [...score.moves.filter((known) => !sameName(known.name, was) && !sameName(known.name, move.name)), move]
}
