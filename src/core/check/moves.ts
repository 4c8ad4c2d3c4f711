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
        fact: { code: 'station-unnamed' },
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
          fact: { code: 'move-unknown', name },
        }),
      )
    } else {
      if ((move.impact === 'high' || move.effort === 5) && !move.easier)
        found.push(
          finding('move', {
            id: `easier ${name}`,
            severity: 'warning',
            ...atSegment(segment),
            fact: { code: 'no-easier', name, jumping: move.impact === 'high' },
          }),
        )
      if (LOADED.test(`${name} ${move.tags.join(' ')}`) && !move.gear.length)
        found.push(
          finding('move', {
            id: `gear ${name}`,
            severity: 'warning',
            ...atSegment(segment),
            fact: { code: 'no-gear', name },
          }),
        )
    }
  }
  return found
}
