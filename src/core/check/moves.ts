// A jumping or heavy move has no easier version noted; a loaded move has no gear noted; a name that nobody knows.
import { isKnown } from '../score/cast'
import type { Segment } from '../score/segment'
import { atSegment, finding, type Check, type Finding } from './finding'

const LOADED = /\b(weights?|jug|bell|loaded|goblet|deadlift|barbell|plates?)\b/i

export const checkMoves: Check = ({ score, expansion, cast }) => {
  const first = new Map<string, Segment>()
  /** The first station without a move, by section. */
  const unnamed = new Map<string, Segment>()
  for (const segment of expansion.segments) {
    for (const name of segment.moves) {
      const [seen, key] = name.trim() ? [first, name] : [unnamed, segment.sectionKey]
      if (!seen.has(key)) seen.set(key, segment)
    }
  }
  const found: Finding[] = []
  for (const [key, segment] of unnamed)
    found.push(
      finding('move', {
        id: `${key} unnamed`,
        severity: 'warning',
        ...atSegment(segment),
        what: 'A station has no move yet.',
        why: 'Viewers would see an empty label.',
      }),
    )
  for (const [name, segment] of first) {
    const move = cast(name)
    if (!isKnown(score.moves, name)) {
      found.push(
        finding('move', {
          id: `unknown ${name}`,
          severity: 'note',
          ...atSegment(segment),
          what: `"${name}" is not in the library.`,
          why: 'Its posture, muscles and seconds per rep are guesses until it is. Rests and estimates are judged by them.',
        }),
      )
    } else {
      if ((move.impact === 'high' || move.effort === 5) && !move.easier)
        found.push(
          finding('move', {
            id: `easier ${name}`,
            severity: 'warning',
            ...atSegment(segment),
            what: `${name} has no easier version noted.`,
            why: `It is ${move.impact === 'high' ? 'a jumping' : 'an all-out'} move; somebody watching will need another way.`,
          }),
        )
      if (LOADED.test(`${name} ${move.tags.join(' ')}`) && !move.gear.length)
        found.push(
          finding('move', {
            id: `gear ${name}`,
            severity: 'warning',
            ...atSegment(segment),
            what: `${name} is loaded, and no gear is noted.`,
            why: 'Viewers want to lay things out before they press play.',
          }),
        )
    }
  }
  return found
}
