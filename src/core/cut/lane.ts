// Lays segments on a footage: from ties to the start and end of every segment in footage time.
import { placeBoundaries } from '../align/place'
import type { Tie } from '../align/ties'
import type { Segment } from '../score/segment'
import type { Ms } from '../units'

/** A segment where it was really filmed. `[fromMs, toMs)` in the time of one footage. */
export interface LaidSegment {
  segment: Segment
  fromMs: Ms
  toMs: Ms
  /** False where the start, or the end, is reckoned from neighbours and not tied. */
  fromTied: boolean
  toTied: boolean
}

/**
 * @param footageMs length of the footage; nothing is laid outside `[0, footageMs]`.
 * @returns the segments in order, never overlapping, each at least 0 ms long.
 */
export function lay(segments: readonly Segment[], ties: readonly Tie[], footageMs: Ms): LaidSegment[] {
  const places = placeBoundaries(segments, ties, footageMs)
  return segments.map((segment, index) => {
    const from = places[index],
      to = places[index + 1]
    return {
      segment,
      fromMs: from?.footageMs ?? 0,
      toMs: to?.footageMs ?? footageMs,
      fromTied: from?.tied ?? false,
      toTied: to?.tied ?? false,
    }
  })
}
