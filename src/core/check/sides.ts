// Left and right are uneven, and by how much.
import type { Segment } from '../score/segment'
import { setSide } from '../score/edits'
import { atSegment, finding, type Check, type Finding } from './finding'

interface Tally {
  first: Segment
  /** One segment of each station, or row, that has this side. */
  turns: Map<string, Segment>
  leftMs: number
  rightMs: number
  rounds: number
}

export const checkSides: Check = ({ expansion }) => {
  const tallies = new Map<string, Tally>()
  for (const segment of expansion.segments) {
    if (segment.kind !== 'work' || (segment.side !== 'left' && segment.side !== 'right')) continue
    const id = `${segment.sectionKey} ${segment.label}`
    const tally = tallies.get(id) ?? {
      first: segment,
      turns: new Map<string, Segment>(),
      leftMs: 0,
      rightMs: 0,
      rounds: segment.rounds ?? segment.sets ?? 1,
    }
    tally[segment.side === 'left' ? 'leftMs' : 'rightMs'] += segment.durationMs
    tally.turns.set(segment.origin?.station?.join('/') ?? '', segment)
    tallies.set(id, tally)
  }
  // A move may be evened out in another section: what counts is the whole video.
  const whole = new Map<string, number>()
  for (const { first, leftMs, rightMs } of tallies.values())
    whole.set(first.label, (whole.get(first.label) ?? 0) + leftMs - rightMs)
  const found: Finding[] = []
  for (const [id, { first, turns, leftMs, rightMs, rounds }] of tallies) {
    if (leftMs === rightMs || whole.get(first.label) === 0) continue
    found.push(
      finding('sides', {
        id,
        severity: 'warning',
        ...atSegment(first),
        fact: { code: 'sides-uneven', label: first.label, leftMs, rightMs, rounds, roundWord: first.words.round.one },
        mend: first.origin?.station
          ? {
              fact: { code: 'both-sides' },
              apply: (draft) => {
                for (const turn of turns.values()) setSide(draft, turn, 'halves')
              },
            }
          : null,
      }),
    )
  }
  return found
}
