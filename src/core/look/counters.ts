// What counts in an interval, as viewers read it: widest first, in the order in which the counters really nest.
import type { ShownSegment } from '../cut/cut'
import type { Segment } from '../score/segment'
import { blockOf, roundOf, setOf, stationOf } from '../words/en/names'

/** Parts of a row of marks: those that are done, the one that runs, and how many there are. */
export interface Marks {
  done: number
  of: number
}

export interface Counters {
  /** At most two. */
  counters: readonly string[]
  /** Of the narrowest counter that no text says; null where there is none, or where there are too many to see. */
  marks: Marks | null
}

const COUNTED = ['block', 'set', 'round', 'station'] as const
type Counted = (typeof COUNTED)[number]

const TEXT_OF: Record<Counted, (segment: Segment) => string> = {
  block: blockOf,
  set: setOf,
  round: roundOf,
  station: stationOf,
}
const PLACE_OF: Record<Counted, (segment: Segment) => { at: number | null; of: number | null }> = {
  block: ({ block, blocks }) => ({ at: block, of: blocks }),
  set: ({ set, sets }) => ({ at: set, of: sets }),
  round: ({ round, rounds }) => ({ at: round, of: rounds }),
  station: ({ station, stations }) => ({ at: station, of: stations }),
}

const MOST_TEXTS = 2
const MOST_MARKS = 16

/**
 * The wider of two counters is the one that changes less often within its section.
 * @returns counters of each interval of a lane, in the same order.
 */
export function countersIn(lane: readonly ShownSegment[]): Counters[] {
  const nested = new Map<string, Counted[]>()
  const changes = new Map<string, Record<Counted, number>>()
  let before: Segment | null = null
  for (const { segment } of lane) {
    const counts = changes.get(segment.sectionKey) ?? { block: 0, set: 0, round: 0, station: 0 }
    const same = before?.sectionKey === segment.sectionKey ? before : null
    if (same) for (const one of COUNTED) if (PLACE_OF[one](segment).at !== PLACE_OF[one](same).at) counts[one]++
    changes.set(segment.sectionKey, counts)
    before = segment
  }
  for (const [key, counts] of changes)
    nested.set(
      key,
      [...COUNTED].sort((one, other) => counts[one] - counts[other]),
    )
  return lane.map(({ segment }) => readIn(segment, nested.get(segment.sectionKey) ?? COUNTED))
}

function readIn(segment: Segment, nested: readonly Counted[]): Counters {
  // Which station comes is what "next" says; in a rest it would be read as the one that is over.
  const counted = nested.filter((one) => (one === 'station' ? segment.kind === 'work' : true) && TEXT_OF[one](segment))
  const narrowest = counted[MOST_TEXTS] === undefined ? undefined : counted.at(-1)
  const { at, of } = narrowest ? PLACE_OF[narrowest](segment) : { at: null, of: null }
  const marks = at !== null && of !== null && of <= MOST_MARKS ? { done: at - 1, of } : null
  return { counters: counted.slice(0, MOST_TEXTS).map((one) => TEXT_OF[one](segment)), marks }
}
