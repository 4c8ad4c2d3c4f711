// The names of a score that are not in the library, what each is taken for, and how the creator settles them.
import type { Facts } from './cast'
import { castOf } from './cast'
import { namesIn } from './library'
import { moveSchema } from './move'
import type { Score } from './score'

export interface Unsure {
  name: string
  facts: Facts
  /** The one move of the library that it is taken for; empty for several in one, and for what nobody knows. */
  like: string
}

/** In the order of the score, each once. */
export function unsureIn(score: Score): Unsure[] {
  const cast = castOf(score.moves)
  return namesIn(score).flatMap((name) => {
    const facts = name.trim() ? cast(name) : null
    if (!facts || facts.sure === 'known') return []
    const head = facts.because.find((reason) => reason.code === 'head')
    return [{ name, facts, like: head?.code === 'head' ? head.move : '' }]
  })
}

/**
 * Makes a name known, in place: as it is taken for, or like another move.
 * @param like the name of a move that is known; empty keeps what is guessed.
 * @returns false where nothing is known of it.
 */
export function settle(score: Score, { name, facts, like: guessed }: Unsure, like: string): boolean {
  const cast = castOf(score.moves)
  const other = like.trim() && like !== guessed ? cast(like) : null
  const from = other ?? facts
  if (from.sure === 'unknown') return false
  const move = moveSchema.safeParse({ ...from, name, short: '' })
  if (!move.success) return false
  score.moves.push(move.data)
  return true
}
