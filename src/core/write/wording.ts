// What an interval is called, in one place: on screen, in captions and in chapter lines.
import type { Segment } from '../score/segment'

/** "Jug lift, left"; rests and breaks by their kind when they have no name of their own. */
export function nameOf(segment: Pick<Segment, 'kind' | 'label' | 'side'>): string {
  const side = segment.side === 'left' || segment.side === 'right' ? `, ${segment.side}`
    : segment.side === 'both' ? ', both sides' : segment.side === 'switch' ? ', left then right' : ''
  return (segment.label || KIND_NAMES[segment.kind]) + side
}

export const KIND_NAMES: Record<Segment['kind'], string> = {
  talk: 'Talk', lead: 'Get ready', work: 'Work', rest: 'Rest', break: 'Break',
}

/** "Round 2 of 3", or nothing where there is only one. */
export function roundOf(segment: Pick<Segment, 'round' | 'rounds'>): string {
  return segment.round !== null && segment.rounds !== null && segment.rounds > 1 ? `Round ${segment.round} of ${segment.rounds}` : ''
}
