// The changes of a score with where each is in a footage, and how that is known.
import { boundariesOf, tieKey } from '@/core/align/boundaries'
import { fitClock } from '@/core/align/clock'
import { placeBoundaries } from '@/core/align/place'
import { SURE, wasNotDone, type Stitch } from '@/core/align/ties'
import type { EvidenceKind } from '@/core/evidence'
import type { Segment } from '@/core/score/segment'
import type { Ms } from '@/core/units'

export interface Change {
  segmentId: string
  edge: 'start' | 'end'
  segment: Segment
  footageMs: Ms
  /** Where the fitted clock would have it. */
  plannedMs: Ms
  /** What ties it, while that is sure. */
  origin: EvidenceKind | 'unsure' | 'reckoned' | 'wasNotDone'
  confidence: number | null
}

/** Every change but the very start and an end in talk, which are not to be tied. */
export function changesOf(segments: readonly Segment[], stitches: readonly Stitch[], footageMs: Ms): Change[] {
  const boundaries = boundariesOf(segments)
  const fit = fitClock(boundaries, stitches)
  const places = placeBoundaries(segments, stitches, footageMs)
  const tied = new Map(stitches.map((one) => [tieKey(one), one]))
  return boundaries.flatMap((boundary, index): Change[] => {
    const segment = segments[Math.min(index, segments.length - 1)]
    if (!segment || !boundary.audible) return []
    const stitch = tied.get(tieKey(boundary))
    return [
      {
        segmentId: boundary.segmentId,
        edge: boundary.edge,
        segment,
        footageMs: places[index]?.footageMs ?? 0,
        plannedMs: fit.offsetMs + boundary.plannedMs * (1 + fit.driftPpm / 1e6),
        origin: originOf(stitch),
        confidence: stitch?.confidence ?? null,
      },
    ]
  })
}

function originOf(stitch: Stitch | undefined): Change['origin'] {
  if (!stitch) return 'reckoned'
  if (wasNotDone(stitch)) return 'wasNotDone'
  if (stitch.origin === 'hand') return 'hand'
  return stitch.confidence >= SURE ? (stitch.evidence[0] ?? 'unsure') : 'unsure'
}
