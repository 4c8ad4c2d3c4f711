// Score to segments: the sums that a creator does in the head. Linear in the number of segments.
import { Problem } from '../problem'
import { castOf } from '../score/cast'
import { expandSection, stationsOf, type Section } from '../score/formats'
import { aroundOf, type Score } from '../score/score'
import type { Expansion, Segment, Totals } from '../score/segment'
import { DAY, type Ms } from '../units'
import { withDemos } from './demos'
import { countRounds } from './rounds'

export const MOST_SEGMENTS = 50_000
export const MOST_STATIONS = 10_000

/**
 * Flattens a score. Segments follow one another without gaps from 0.
 * @throws Problem `too-many` above 50,000 segments or 10,000 stations, `too-long` above 24 hours.
 */
export function expand(score: Score): Expansion {
  const cast = castOf(score.moves)
  const parts: Segment[][] = []
  let count = 0,
    stations = 0
  score.sections.forEach((section, index) => {
    stations += stationsOf(section).length
    if (stations > MOST_STATIONS)
      throw new Problem(
        'too-many',
        `The score has more than ${MOST_STATIONS.toLocaleString('en')} stations. Rounds repeat stations without listing them again.`,
        section.name,
      )
    if (count + worksIn(section) > MOST_SEGMENTS) throw tooMany(section.name)
    const part = expandSection(section, aroundOf(score, index, cast))
    for (const segment of part) segment.section = section.name
    countRounds(part, section, score.readings.round)
    parts.push(part)
    count += part.length
    if (count > MOST_SEGMENTS) throw tooMany(section.name)
  })
  const segments: Segment[] = []
  let startMs: Ms = 0
  for (const part of withDemos(parts, score.demos)) {
    for (const segment of part) {
      segment.startMs = startMs
      segment.row = segments.push(segment)
      startMs += segment.durationMs
    }
  }
  if (startMs > DAY) throw new Problem('too-long', 'The score is longer than 24 hours.')
  return { ...totalsOf(segments), segments }
}

/** What unfolding gives, or the sentence that says why it gives nothing. */
export type Unfolding = { expansion: Expansion; problem: null } | { expansion: null; problem: string }

/** The same without throwing. */
export function tryExpand(score: Score): Unfolding {
  try {
    return { expansion: expand(score), problem: null }
  } catch (error) {
    if (error instanceof Problem) return { expansion: null, problem: error.message }
    throw error
  }
}

/** Known before unfolding, so that an absurd score is refused at once and not after seconds of work. */
function worksIn(section: Section): number {
  const times =
    'rounds' in section
      ? typeof section.rounds === 'number'
        ? section.rounds
        : section.rounds.length
      : 'sets' in section
        ? section.sets
        : 'times' in section
          ? section.times
          : 'rungs' in section
            ? section.rungs
            : 'passes' in section
              ? typeof section.passes === 'number'
                ? section.passes
                : section.passes.length
              : 'steps' in section
                ? section.steps
                : 'intervals' in section
                  ? section.intervals
                  : 1
  return stationsOf(section).length * times
}

const tooMany = (section: string): Problem =>
  new Problem(
    'too-many',
    `The score unfolds into more than ${MOST_SEGMENTS.toLocaleString('en')} intervals. Fewer rounds or stations are needed.`,
    section,
  )

/** Sums over segments; `restMs` counts rests and breaks, not talk or lead-in. */
export function totalsOf(segments: readonly Segment[]): Totals {
  let totalMs = 0,
    workMs = 0,
    restMs = 0,
    estimated = false
  for (const { kind, durationMs, estimated: guess } of segments) {
    totalMs += durationMs
    if (kind === 'work') workMs += durationMs
    if (kind === 'rest' || kind === 'break') restMs += durationMs
    estimated ||= guess
  }
  return { totalMs, workMs, restMs, estimated }
}
