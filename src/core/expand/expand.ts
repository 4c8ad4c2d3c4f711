// Score to segments: the sums that a creator does in the head. Linear in the number of segments.
import type { ProblemFact } from '../facts'
import { MOST_SECTIONS, MOST_SEGMENTS, MOST_STATIONS } from '../limits'
import { Problem } from '../problem'
import { withRepeats } from '../score/again'
import { castOf, type Cast } from '../score/cast'
import { expandSection, formatOf, partOf, stationsOf, type Section } from '../score/formats'
import { likelyOf, valueAt } from '../score/formats/fields'
import type { Part } from '../score/formats/format'
import { aroundOf, type Score } from '../score/score'
import type { Expansion, Segment, Totals } from '../score/segment'
import { DAY, type Ms } from '../units'
import { withDemos } from './demos'
import { countRounds } from './rounds'

/**
 * Flattens a score. Segments follow one another without gaps from 0.
 * @throws Problem `too-many` above 50,000 segments or 10,000 stations, `too-long` above 24 hours.
 */
export function expand(written: Score): Expansion {
  const score = withRepeats(written)
  const { length } = score.sections
  if (length > MOST_SECTIONS)
    throw new Problem({ code: 'too-many', what: 'sections', most: MOST_SECTIONS, found: length })
  const cast = castOf(score.moves)
  const parts: Segment[][] = []
  let count = 0,
    stations = 0
  score.sections.forEach((section, index) => {
    stations += stationsOf(section).length
    if (stations > MOST_STATIONS) throw tooMany('stations', MOST_STATIONS, section.name)
    // Asked before unfolding, so that an absurd score is refused at once and not after seconds of work.
    if (count + formatOf(section).works(section) > MOST_SEGMENTS)
      throw tooMany('intervals', MOST_SEGMENTS, section.name)
    const part = expandSection(section, aroundOf(score, index, cast))
    for (const segment of part) segment.section = section.name
    // What a repetition holds is changed where it stands, not here.
    if (written.sections[index] !== section) for (const segment of part) segment.origin = null
    countRounds(part, section, score.readings.round)
    parts.push(part)
    count += part.length
    if (count > MOST_SEGMENTS) throw tooMany('intervals', MOST_SEGMENTS, section.name)
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
  if (startMs > DAY) throw new Problem({ code: 'too-long' })
  countBlocks(score, parts)
  const outside = score.sections.filter((section) => OUTSIDE.has(partOf(section) ?? 'main')).map(({ key }) => key)
  const totals = totalsOf(segments, new Set(outside))
  return { ...widened(totals, score, parts, cast), segments }
}

/** Parts that many a title does not count: what is done before and after the workout. */
const OUTSIDE: ReadonlySet<Part> = new Set(['warmUp', 'coolDown', 'talk'])

/** Where only the bounds of a count are known ("2 to 4 rounds"), the total may be off by what the others would add. */
function widened(totals: Totals, score: Score, parts: readonly Segment[][], cast: Cast): Totals {
  let { minMs, maxMs } = totals
  score.sections.forEach((section, index) => {
    const counts = countsOf(section)
    if (!counts) return
    const around = aroundOf(score, index, cast)
    const planned = totalsOf(parts[index] ?? [])
    const least = totalsOf(expandSection({ ...section, ...counts.low }, around))
    const most = totalsOf(expandSection({ ...section, ...counts.high }, around))
    minMs += least.minMs - planned.minMs
    maxMs = maxMs === null || most.maxMs === null || planned.maxMs === null ? null : maxMs + most.maxMs - planned.maxMs
  })
  return minMs === totals.minMs && maxMs === totals.maxMs ? totals : { ...totals, estimated: true, minMs, maxMs }
}

/** The bounds of a section's counts, by field; null where all are known, or where the most would be absurd. */
function countsOf(section: Section): { low: Record<string, number>; high: Record<string, number> } | null {
  const low: Record<string, number> = {},
    high: Record<string, number> = {}
  for (const field of formatOf(section).notation.fields) {
    const range = section.ranges[field.field]
    if (field.kind !== 'count' || !range || likelyOf(field, range) !== valueAt(section, field.field)) continue
    low[field.field] = range[0]
    high[field.field] = range[1]
  }
  if (!Object.keys(low).length) return null
  return formatOf(section).works({ ...section, ...high }) > MOST_SEGMENTS ? null : { low, high }
}

/** Numbers the blocks that are trained, in place. */
function countBlocks(score: Score, parts: readonly Segment[][]): void {
  const main = parts.filter((part, index) => partOf(score.sections[index]) === 'main' && part.length > 0)
  main.forEach((part, index) => {
    for (const segment of part) {
      if (segment.kind === 'talk') continue
      segment.block = index + 1
      segment.blocks = main.length
    }
  })
}

const tooMany = (what: 'intervals' | 'stations', most: number, section: string): Problem =>
  new Problem({ code: 'too-many', what, most, found: null }, section)

/** What unfolding gives, or why it gives nothing. */
export type Unfolding = { expansion: Expansion; problem: null } | { expansion: null; problem: ProblemFact }

const NONE: ReadonlySet<string> = new Set()

/** The same without throwing. */
export function tryExpand(score: Score): Unfolding {
  try {
    return { expansion: expand(score), problem: null }
  } catch (error) {
    if (error instanceof Problem) return { expansion: null, problem: error.fact }
    throw error
  }
}

/**
 * Sums over segments; `restMs` counts rests and breaks, not talk or lead-in.
 * @param outside keys of sections that are no part of the workout itself.
 */
export function totalsOf(segments: readonly Segment[], outside: ReadonlySet<string> = NONE): Totals {
  let totalMs = 0,
    workMs = 0,
    restMs = 0,
    estimated = false,
    atLeastMs = 0,
    workoutMs = 0
  let atMostMs: Ms | null = 0
  for (const { kind, durationMs, estimated: guess, slot, minMs, maxMs, sectionKey } of segments) {
    totalMs += durationMs
    if (kind !== 'talk' && !outside.has(sectionKey)) workoutMs += durationMs
    // The parts of a slot stray, the slot does not.
    atLeastMs += slot ? durationMs : minMs
    const most: Ms | null = slot ? durationMs : maxMs
    atMostMs = atMostMs === null || most === null ? null : atMostMs + most
    if (kind === 'work') workMs += durationMs
    if (kind === 'rest' || kind === 'break') restMs += durationMs
    estimated ||= guess
  }
  return { totalMs, workoutMs, workMs, restMs, estimated, minMs: atLeastMs, maxMs: atMostMs }
}
