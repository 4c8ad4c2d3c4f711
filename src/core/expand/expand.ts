// Score to segments: the sums that a creator does in the head. Linear in the number of segments.
import { Problem } from '../problem'
import { expandSection, type Section } from '../score/formats'
import type { Score } from '../score/score'
import type { Expansion, Segment, Totals } from '../score/segment'
import { DAY, type Ms } from '../units'

export const MOST_SEGMENTS = 50_000

/**
 * Flattens a score. Segments follow one another without gaps from 0.
 * @throws Problem `too-many` above 50,000 segments, `too-long` above 24 hours.
 */
export function expand(score: Score): Expansion {
  const segments: Segment[] = []
  let startMs: Ms = 0
  score.sections.forEach((section, index) => {
    if (segments.length + worksIn(section) > MOST_SEGMENTS) throw tooMany(section.name)
    const breakFollows = score.sections[index + 1]?.format === 'break'
    for (const part of expandSection(section, { breakFollows })) {
      segments.push({ ...part, section: section.name, row: segments.length + 1, startMs })
      startMs += part.durationMs
    }
    if (segments.length > MOST_SEGMENTS) throw tooMany(section.name)
  })
  if (startMs > DAY) throw new Problem('too-long', 'The score is longer than 24 hours.')
  return { ...totalsOf(segments), segments }
}

/** Known before unfolding, so that an absurd score is refused at once and not after seconds of work. */
const worksIn = (section: Section): number => (section.format === 'circuit' ? section.rounds * section.stations.length : 0)

const tooMany = (section: string): Problem =>
  new Problem('too-many', `The score unfolds into more than ${MOST_SEGMENTS.toLocaleString('en')} intervals. Fewer rounds or stations are needed.`, section)

/** Sums over segments; `restMs` counts rests and breaks, not talk or lead-in. */
export function totalsOf(segments: readonly Segment[]): Totals {
  let totalMs = 0, workMs = 0, restMs = 0, estimated = false
  for (const { kind, durationMs, estimated: guess } of segments) {
    totalMs += durationMs
    if (kind === 'work') workMs += durationMs
    if (kind === 'rest' || kind === 'break') restMs += durationMs
    estimated ||= guess
  }
  return { totalMs, workMs, restMs, estimated }
}
