// Instants of an interval that are both shown and sounded, decided once for both.
import type { ShownSegment } from '../cut/cut'
import type { Segment } from '../score/segment'
import { SECOND, type Ms, type Share } from '../units'

/** Work that is shorter is over before halfway is taken in. */
const WORTH_HALVING_MS: Ms = 20 * SECOND

/** What the middle of work is. */
export type Middle = 'otherSide' | 'otherWay' | 'halfway'

/** The middle of an interval; where the side changes in one of two halves. */
export const middleOf = (startMs: Ms, endMs: Ms): Ms => Math.round((startMs + endMs) / 2)

/** Less than this share of the plan is an interval that was broken off. */
const BROKEN_OFF: Share = 0.5

/** Null where the middle is nothing to tell of, or nobody knows it. The plan decides, not what was filmed of it. */
export function middleIn({ segment, startMs, endMs }: ShownSegment): Middle | null {
  if (segment.kind !== 'work') return null
  if (segment.side === 'switch') return 'otherSide'
  if (segment.reverses) return 'otherWay'
  const isWorthIt = segment.durationMs >= WORTH_HALVING_MS && endMs - startMs >= segment.durationMs * BROKEN_OFF
  return segment.pace === 'fixed' && isWorthIt ? 'halfway' : null
}

/** Whether the last of several rounds begins with it. */
export const beginsLastRound = ({ kind, round, rounds, station }: Segment): boolean =>
  kind === 'work' && rounds !== null && rounds > 1 && round === rounds && (station ?? 1) === 1

/** The place of the last work of all; -1 where there is none. */
export const lastWorkOf = (lane: readonly ShownSegment[]): number =>
  lane.findLastIndex(({ segment, startMs, endMs }) => segment.kind === 'work' && endMs > startMs)

/** Whether nothing but the plan's own guess says how long it lasted. */
export const lastsAsGuessed = ({ segment, startMs, endMs }: ShownSegment): boolean =>
  (segment.pace === 'open' || segment.pace === 'own') && endMs - startMs === segment.durationMs
