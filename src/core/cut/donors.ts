// What may stand for a segment that was not filmed: the same, filmed at another time.
import type { Segment } from '../score/segment'
import type { LaidSegment } from './lane'

export interface Donor {
  from: LaidSegment
  mirrored: boolean
}

/** A segment of the footage, and the work that it is, or leads to. */
interface Candidate {
  from: LaidSegment
  work: Segment | null
}

/** Finds donors among what was filmed. */
export class Donors {
  private readonly works = new Map<string, Segment | null>()
  private readonly candidates: readonly Candidate[]

  /**
   * @param laid all segments, in order.
   * @param mirrors whether work of the other side, mirrored, may stand for it.
   */
  constructor(
    laid: readonly LaidSegment[],
    wasFilmed: (one: LaidSegment) => boolean,
    private readonly mirrors: boolean,
  ) {
    let work: Segment | null = null
    for (const { segment } of [...laid].reverse()) {
      if (segment.kind === 'work') work = segment
      if (segment.kind === 'talk') work = null
      this.works.set(segment.id, work)
    }
    this.candidates = laid
      .filter(wasFilmed)
      .map((from): Candidate => ({ from, work: this.works.get(from.segment.id) ?? null }))
  }

  /**
   * The likeliest to be taken for it: filmed on the same side rather than mirrored, tied at both ends, long enough,
   * near in the running order. Rest may stand for rest that leads to the same work.
   * @returns null where nothing may stand for it.
   */
  for({ segment }: LaidSegment): Donor | null {
    const work = this.works.get(segment.id) ?? null
    let best: (Donor & { cost: number }) | null = null
    for (const { from, work: theirs } of this.candidates) {
      const way = from.segment.kind === segment.kind ? wayOf(work, theirs) : null
      if (!way || (way === 'mirrored' && (!this.mirrors || segment.kind !== 'work'))) continue
      const short = Math.max(0, segment.durationMs - (from.toMs - from.fromMs))
      const untied = Number(!from.fromTied) + Number(!from.toTied)
      const far = Math.abs(from.segment.row - segment.row)
      const cost = (way === 'mirrored' ? 1e6 : 0) + untied * 1e5 + short + far
      if (!best || cost < best.cost) best = { from, mirrored: way === 'mirrored', cost }
    }
    return best && { from: best.from, mirrored: best.mirrored }
  }
}

function wayOf(missing: Segment | null, filmed: Segment | null): 'same' | 'mirrored' | null {
  if (!missing?.moves.length || missing.moves.join('\n') !== filmed?.moves.join('\n')) return null
  if (missing.pace !== filmed.pace || missing.reps !== filmed.reps) return null
  if (missing.side === filmed.side && missing.firstSide === filmed.firstSide) return 'same'
  const sides = [missing.side, filmed.side]
  return sides.includes('left') && sides.includes('right') ? 'mirrored' : null
}
