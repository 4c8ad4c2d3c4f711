// Boundaries of a score: the instants that are tied to a footage.
import type { Segment } from '../score/segment'
import type { Ms } from '../units'

/** An instant where one segment gives way to the next, or the end of the last one. */
export interface Boundary {
  segmentId: string
  row: number
  edge: 'start' | 'end'
  /** In score time. */
  plannedMs: Ms
  /** A stretch of unknown length (talk) lies between the boundary before and this one. */
  afterTalk: boolean
  /** A timer or a coach marks this instant: all but the very start, and the end of closing talk. */
  audible: boolean
}

/** What names a boundary. */
export type BoundaryName = Pick<Boundary, 'segmentId' | 'edge'>

/** One text for a boundary, wherever boundaries and ties are looked up by one another. */
export const tieKey = ({ segmentId, edge }: BoundaryName): string => `${segmentId} ${edge}`

/** In order of time. Boundary `n` begins segment `n`; the last ends the last segment. */
export function boundariesOf(segments: readonly Segment[]): Boundary[] {
  const starts = segments.map((segment, index): Boundary => ({
    segmentId: segment.id,
    row: segment.row,
    edge: 'start',
    plannedMs: segment.startMs,
    afterTalk: segments[index - 1]?.kind === 'talk',
    audible: segment.kind !== 'talk' || (index > 0 && segments[index - 1]?.kind !== 'talk'),
  }))
  const last = segments.at(-1)
  if (!last) return starts
  const end: Boundary = {
    segmentId: last.id,
    row: last.row,
    edge: 'end',
    plannedMs: last.startMs + last.durationMs,
    afterTalk: last.kind === 'talk',
    audible: last.kind !== 'talk',
  }
  return [...starts, end]
}
