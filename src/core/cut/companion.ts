// A session without footage: the plan itself as a video, drawn from its beginning to its end, for whoever runs it by a
// timer.
import type { Segment } from '../score/segment'
import { asPlanned, type Cut, type ShownSegment } from './cut'
import { SpanList } from './spans'

export function companionOf(segments: readonly Segment[]): { cut: Cut; shown: ShownSegment[] } {
  const list = new SpanList()
  for (const { id, durationMs } of segments) list.card(durationMs, id)
  return { cut: list.cut, shown: asPlanned(segments) }
}
