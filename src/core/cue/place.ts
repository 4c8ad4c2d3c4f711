// Where a rule is asked: one interval in its lane, with what several rules need to know of it.
import { endIsKnown, slotEnd, type ShownSegment } from '../cut/cut'
import { castOf, type Cast } from '../score/cast'
import type { Move } from '../score/move'
import type { Segment } from '../score/segment'
import type { Ms } from '../units'
import type { Candidate, RuleName } from './cue'
import { lastWorkOf } from './moments'

export interface Place extends ShownSegment {
  lane: readonly ShownSegment[]
  index: number
  before: Segment | null
  /** What begins where it ends, if anything does. */
  after: Segment | null
  /** Whether viewers can be told when it begins, and when it ends. */
  startKnown: boolean
  endKnown: boolean
  isLastWork: boolean
  /** Where the clock that runs over it ends. */
  slotEndMs: Ms
  /** Whether it is the first of its section that lasts, talk aside. */
  opensSection: boolean
  cast: Cast
}

/** One rule, in a file of its own. */
export interface CueRule {
  name: RuleName
  /** Whether it holds unless somebody says otherwise. */
  usual: boolean
  /** @returns what it would have sounded in this interval. */
  candidates: (place: Place) => Candidate[]
}

/** A tone takes the ear for so long; what is said waits until it is over. */
export const AFTER_TONE_MS: Ms = 700
/** The last seconds belong to the count. */
export const COUNT_MS: Ms = 3300

/** The intervals that last, each with what its rules may ask. */
export function placesIn(lane: readonly ShownSegment[], moves: readonly Move[]): Place[] {
  const cast = castOf(moves)
  const lastWork = lastWorkOf(lane)
  const opened = new Set<string>()
  return lane.flatMap((laid, index): Place[] => {
    const { segment, startMs, endMs } = laid
    if (endMs <= startMs) return []
    const opensSection = segment.kind !== 'talk' && !opened.has(segment.sectionKey)
    if (opensSection) opened.add(segment.sectionKey)
    return [
      {
        ...{ ...laid, lane, index, cast, opensSection },
        before: lane[index - 1]?.segment ?? null,
        after: lane[index + 1]?.segment ?? null,
        startKnown: index === 0 || endIsKnown(lane, index - 1),
        endKnown: endIsKnown(lane, index),
        isLastWork: index === lastWork,
        slotEndMs: slotEnd(lane, index),
      },
    ]
  })
}

/** The work that comes after this interval, over a rest between; null where talk or the end comes first. */
export function nextWork({ lane, index }: Pick<Place, 'lane' | 'index'>): Segment | null {
  for (const { segment, startMs, endMs } of lane.slice(index + 1)) {
    if (segment.kind === 'talk') return null
    if (segment.kind === 'work' && endMs > startMs) return segment
  }
  return null
}
