// Left and right are uneven, and by how much.
import type { Segment } from '../score/segment'
import { formatLength } from '../time/clock'
import { setField } from '../score/edits'
import { atSegment, finding, type Check, type Finding } from './finding'

interface Tally {
  first: Segment
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
      leftMs: 0,
      rightMs: 0,
      rounds: segment.rounds ?? segment.sets ?? 1,
    }
    tally[segment.side === 'left' ? 'leftMs' : 'rightMs'] += segment.durationMs
    tallies.set(id, tally)
  }
  // A move may be evened out in another section: what counts is the whole video.
  const whole = new Map<string, number>()
  for (const { first, leftMs, rightMs } of tallies.values())
    whole.set(first.label, (whole.get(first.label) ?? 0) + leftMs - rightMs)
  const found: Finding[] = []
  for (const [id, { first, leftMs, rightMs, rounds }] of tallies) {
    if (leftMs === rightMs || whole.get(first.label) === 0) continue
    const station = first.origin?.station
    found.push(
      finding('sides', {
        id,
        severity: 'warning',
        ...atSegment(first),
        what: `${first.label}: left ${formatLength(leftMs)}, right ${formatLength(rightMs)}; ${formatLength(Math.abs(leftMs - rightMs))} more on the ${leftMs > rightMs ? 'left' : 'right'}.`,
        why:
          rounds % 2
            ? `Sides change from one ${first.words.round.one} to the next, and ${rounds} is odd, so one side is short.`
            : 'Both sides should get the same work.',
        mend: station
          ? {
              label: 'Both sides in every turn',
              apply: (draft) => setField(draft, first.sectionKey, [...station, 'sideRule'], 'halves'),
            }
          : null,
      }),
    )
  }
  return found
}
