// A jumping or heavy move has no easier version noted; a loaded move has no gear noted; a name that nobody knows.
import type { FindingFact } from '../facts'
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
  // What rests on a guess is no reason to complain.
  const known = [...first.keys()].filter((name) => cast(name).sure === 'known')
  const hard = known.filter((name) => !cast(name).easier)
  const jumping = hard.filter((name) => cast(name).impact === 'high')
  const allOut = hard.filter((name) => cast(name).impact !== 'high' && cast(name).effort === 5)
  const loaded = known.filter((name) => LOADED.test(`${name} ${cast(name).tags.join(' ')}`) && !cast(name).gear.length)
  const about = (id: string, names: readonly string[], fact: FindingFact): void => {
    const at = first.get(names[0] ?? '')
    if (at) found.push(finding('move', { id, severity: 'warning', ...atSegment(at), fact }))
  }
  about('easier jumping', jumping, { code: 'no-easier', names: jumping, jumping: true })
  about('easier all-out', allOut, { code: 'no-easier', names: allOut, jumping: false })
  about('gear', loaded, { code: 'no-gear', names: loaded })
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
