// The footage as it was filmed, from its first instant to its last: output time is footage time.
import type { Tie } from '../align/ties'
import type { Segment } from '../score/segment'
import type { Ms } from '../units'
import { shownIn, type Cut, type ShownSegment } from './cut'
import { lay, type LaidSegment } from './lane'
import { SpanList } from './spans'

export function follow(laid: readonly LaidSegment[], footageMs: Ms): Cut {
  const list = new SpanList()
  const upTo = (toMs: Ms): void => list.show({ fromMs: list.outMs, toMs, segmentId: null, why: 'filmed' })
  for (const { segment, fromMs, toMs } of laid) {
    upTo(fromMs)
    list.show({ fromMs, toMs, segmentId: segment.id, why: 'filmed' })
  }
  upTo(footageMs)
  return list.cut
}

/** From ties to what is shown, where the footage is followed as filmed. @param footageMs its length. */
export function followed(
  segments: readonly Segment[],
  ties: readonly Tie[],
  footageMs: Ms,
): { cut: Cut; shown: ShownSegment[] } {
  const laid = lay(segments, ties, footageMs)
  const cut = follow(laid, footageMs)
  return { cut, shown: shownIn(cut, laid) }
}
