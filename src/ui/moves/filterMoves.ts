// Which moves a search shows: every typed word must be found somewhere in a move.
import { OTHER_NAMES_OF, type Move } from '@/core/score/moves'
import { nameWords } from '@/core/score/nameKey'
import type { Impact, Muscle, Posture } from '@/core/score/postures'

export interface MoveFilter {
  text: string
  posture: Posture | ''
  muscle: Muscle | ''
  impact: Impact | ''
  tag: string
  ownOnly: boolean
}
export const EMPTY_FILTER: MoveFilter = { text: '', posture: '', muscle: '', impact: '', tag: '', ownOnly: false }

export function filterMoves(moves: readonly Move[], filter: MoveFilter, own: ReadonlySet<string>): Move[] {
  const words = nameWords(filter.text)
  return moves.filter((move) => {
    const told = wordsOf(move)
    return (
      words.every((word) => told.includes(` ${word}`)) &&
      (!filter.posture || move.posture === filter.posture) &&
      (!filter.muscle || move.muscles.includes(filter.muscle)) &&
      (!filter.impact || move.impact === filter.impact) &&
      (!filter.tag || move.tags.includes(filter.tag)) &&
      (!filter.ownOnly || own.has(move.name.toLowerCase()))
    )
  })
}

const OTHER_NAMES = new Map<string, string[]>()
for (const [other, name] of OTHER_NAMES_OF) OTHER_NAMES.set(name, [...(OTHER_NAMES.get(name) ?? []), other])

/** What coaches call muscles and gear. */
const SAID_FOR: Readonly<Record<string, string>> = {
  trunk: 'abs core abdominals obliques waist',
  hips: 'glutes bum bottom',
  thighs: 'legs quads hamstrings quadriceps',
  calves: 'legs',
  arms: 'biceps triceps',
  back: 'lats',
  shoulders: 'delts',
  chest: 'pecs',
  weight: 'dumbbell kettlebell weights',
}

const told = new WeakMap<Move, string>()
/** Everything that a move can be found by, each word after a blank. */
function wordsOf(move: Move): string {
  const before = told.get(move)
  if (before !== undefined) return before
  const { name, short, cue, easier, harder, caution, muscles, gear, tags } = move
  const others = OTHER_NAMES.get(name) ?? []
  const meant = [...muscles, ...gear].map((one) => SAID_FOR[one] ?? '')
  const all = [name, short, cue, easier, harder, caution, ...muscles, ...gear, ...tags, ...others, ...meant]
  const words = ` ${nameWords(all.join(' ')).join(' ')}`
  told.set(move, words)
  return words
}
