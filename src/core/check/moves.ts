// A jumping or heavy move has no easier version noted; a loaded move has no gear noted; a name that nobody knows.
import type { Sureness } from '../score/cast'
import type { Segment } from '../score/segment'
import { atSegment, finding, type Check, type Finding, type Review } from './finding'

const LOADED = /\b(weights?|weighted|loaded|goblet|barbell|dumbbells?|kettlebells?|plates?)\b/i

export const checkMoves: Check = ({ expansion, cast }) => {
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
  found.push(...unsure(first, cast))
  for (const [name, segment] of first) {
    const move = cast(name)
    // What rests on a guess is no reason to complain.
    if (move.sure !== 'known') continue
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
  return found
}

/** One finding for all names that are not in the library, however many. */
function unsure(first: ReadonlyMap<string, Segment>, cast: Review['cast']): Finding[] {
  const named = (sure: Sureness): string[] => [...first.keys()].filter((name) => cast(name).sure === sure)
  const [guessed, unknown] = [named('guessed'), named('unknown')]
  const at = first.get(unknown[0] ?? guessed[0] ?? '')
  if (!at) return []
  return [
    finding('move', {
      id: 'unsure',
      severity: 'note',
      ...atSegment(at),
      fact: { code: 'moves-unsure', guessed, unknown },
    }),
  ]
}
