// Lays segments on the footage: from stitches to the start and end of every segment in footage time.
import { predict, tieKey, type Boundary, type StitchPoint } from '../align/boundaries'
import type { Segment } from '../score/segment'
import type { Ms } from '../units'

/** A segment where it really happened. `[startMs, endMs)` in footage time. */
export interface LaidSegment {
  segment: Segment
  startMs: Ms
  endMs: Ms
  /** False where the start, or the end, is reckoned from neighbours and not stitched. */
  startStitched: boolean
  endStitched: boolean
}

/**
 * @param footageMs length of the footage; nothing is laid outside `[0, footageMs]`.
 * @returns the segments in order, never overlapping, each at least 0 ms long.
 */
export function lay(
  segments: readonly Segment[],
  boundaries: readonly Boundary[],
  stitches: readonly StitchPoint[],
  footageMs: Ms,
): LaidSegment[] {
  const places = predict(boundaries, stitches, footageMs)
  const at = new Map(boundaries.map((boundary, index) => [tieKey(boundary), places[index]]))
  return segments.map((segment, index) => {
    const start = at.get(tieKey({ segmentId: segment.id, edge: 'start' }))
    const next = segments[index + 1]
    const end = next
      ? at.get(tieKey({ segmentId: next.id, edge: 'start' }))
      : at.get(tieKey({ segmentId: segment.id, edge: 'end' }))
    return {
      segment,
      startMs: start?.footageMs ?? 0,
      startStitched: start?.stitched ?? false,
      endMs: end?.footageMs ?? footageMs,
      endStitched: end?.stitched ?? false,
    }
  })
}

/** Score time itself as a lane, for the companion track and for exports without footage. */
export function layAsPlanned(segments: readonly Segment[]): LaidSegment[] {
  return segments.map((segment) => ({
    segment,
    startMs: segment.startMs,
    endMs: segment.startMs + segment.durationMs,
    startStitched: true,
    endStitched: true,
  }))
}
