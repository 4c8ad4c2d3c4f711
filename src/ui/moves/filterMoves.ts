// Which moves a search shows: every typed word must be found somewhere in a move.
import type { Move } from '@/core/score/moves'
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
  const words = filter.text.toLowerCase().split(/\s+/).filter(Boolean)
  return moves.filter((move) => {
    const told = [
      move.name,
      move.short,
      move.cue,
      move.easier,
      move.harder,
      move.caution,
      ...move.muscles,
      ...move.gear,
      ...move.tags,
    ]
      .join(' ')
      .toLowerCase()
    return (
      words.every((word) => told.includes(word)) &&
      (!filter.posture || move.posture === filter.posture) &&
      (!filter.muscle || move.muscles.includes(filter.muscle)) &&
      (!filter.impact || move.impact === filter.impact) &&
      (!filter.tag || move.tags.includes(filter.tag)) &&
      (!filter.ownOnly || own.has(move.name.toLowerCase()))
    )
  })
}
