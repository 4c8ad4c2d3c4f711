// What comes next, with its side, what it is done with where that is another than before, and how long.
import { cueTexts } from '../../words/en/cues'
import type { Segment } from '../../score/segment'
import { AFTER_TONE_MS, COUNT_MS, nextWork, type CueRule, type Place } from '../place'

export const next: CueRule = {
  name: 'next',
  usual: true,
  candidates: (place) => {
    const { segment, startMs, endMs, endKnown, before, startKnown } = place
    const key = 'said'
    if (segment.kind === 'work') {
      // Work straight after work leaves no rest to name it in.
      if (before?.kind !== 'work' || !startKnown) return []
      const atMs = startMs + AFTER_TONE_MS
      const lines = cueTexts.now(segment, gearFor(segment, place, before))
      return [
        {
          key,
          segmentId: segment.id,
          priority: 70,
          lines,
          atMs,
          fromMs: atMs,
          untilMs: Math.min(endMs, startMs + 5000),
        },
      ]
    }
    const coming = segment.kind === 'talk' ? null : nextWork(place)
    // Of a rest and the lead-in after it, the first one says it.
    if (!coming || (segment.kind === 'lead' && before !== null && before.kind !== 'talk' && before.kind !== 'work'))
      return []
    const atMs = startMs + AFTER_TONE_MS
    const lines = cueTexts.next(coming, gearFor(coming, place, workBefore(place)), shortOf(coming, place))
    const untilMs = endMs - (endKnown ? COUNT_MS : 0)
    return [{ key, segmentId: segment.id, priority: 70, lines, atMs, fromMs: atMs, untilMs }]
  },
}

/** A name that is said faster, of one move that is known by it. */
function shortOf({ moves, label }: Segment, { cast }: Place): string {
  const [name, more] = moves
  const short = name === undefined || more !== undefined ? '' : cast(name).short
  return short && short.length < label.length ? short : label
}

const workBefore = ({ lane, index }: Place): Segment | null =>
  lane.slice(0, index).findLast(({ segment }) => segment.kind === 'work')?.segment ?? null

/** What has to be fetched for it, and was not in hand before. */
function gearFor(segment: Segment, { cast }: Place, before: Segment | null): string[] {
  const gearOf = (one: Segment | null): string[] =>
    (one?.moves ?? []).map(cast).flatMap(({ sure, gear }) => (sure === 'known' ? gear : []))
  const had = new Set(gearOf(before))
  return [...new Set(gearOf(segment))].filter((one) => !had.has(one))
}
