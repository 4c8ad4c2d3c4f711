// What a page that runs a session by itself is given, as JSON within it.
import type { CueWishes } from '@/core/cue/wishes'
import type { Viewing } from '@/core/look/overlay'
import type { Score } from '@/core/score/score'
import type { Segment } from '@/core/score/segment'

export interface CompanionSession {
  title: string
  segments: readonly Segment[]
  viewing: Viewing
  cues: CueWishes
  /** What comes next in the series; empty for nothing. */
  next: string
}

/** @param segments of the score. */
export const sessionOf = (
  { title, count, countOf, moves, series }: Score,
  segments: readonly Segment[],
  cues: CueWishes,
): CompanionSession => ({ title, segments, cues, viewing: { count, countOf, moves }, next: series.next })

/** Where the session stands in the page, and where it is shown. */
export const SESSION_ID = 'jivet-session'
export const STAGE_ID = 'jivet-stage'
