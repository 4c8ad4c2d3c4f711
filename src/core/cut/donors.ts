// What may stand for a segment that was not filmed: the same, filmed at another time.
import type { Segment } from '../score/segment'
import type { LaidSegment } from './lane'

export interface Donor {
  from: LaidSegment
  mirrored: boolean
}

/**
 * The likeliest to be taken for it: filmed on the same side rather than mirrored, tied at both ends, long enough, near
 * in the running order.
 * @param filmed the segments that the footage has.
 * @returns null where nothing may stand for it.
 */
export function donorFor(missing: LaidSegment, filmed: readonly LaidSegment[], mirrors: boolean): Donor | null {
  let best: (Donor & { cost: number }) | null = null
  for (const from of filmed) {
    const way = wayOf(missing.segment, from.segment)
    if (!way || (way === 'mirrored' && !mirrors)) continue
    const short = Math.max(0, missing.segment.durationMs - (from.toMs - from.fromMs))
    const untied = Number(!from.fromTied) + Number(!from.toTied)
    const far = Math.abs(from.segment.row - missing.segment.row)
    const cost = (way === 'mirrored' ? 1e6 : 0) + untied * 1e5 + short + far
    if (!best || cost < best.cost) best = { from, mirrored: way === 'mirrored', cost }
  }
  return best && { from: best.from, mirrored: best.mirrored }
}

function wayOf(missing: Segment, from: Segment): 'same' | 'mirrored' | null {
  if (from.kind !== missing.kind || from.id === missing.id || missing.kind !== 'work') return null
  if (!missing.moves.length || missing.moves.join('\n') !== from.moves.join('\n')) return null
  if (missing.pace !== from.pace || missing.reps !== from.reps) return null
  if (missing.side === from.side && missing.firstSide === from.firstSide) return 'same'
  const sides = [missing.side, from.side]
  return sides.includes('left') && sides.includes('right') ? 'mirrored' : null
}
