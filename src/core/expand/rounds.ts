// What a "round" counts is the creator's: a pass through the stations, one interval, or a climb with its descent.
import { formatOf, type Section } from '../score/formats'
import type { Readings } from '../score/schools'
import type { Segment } from '../score/segment'

/** Counts anew, in place, where the reading is not that of the formats: once through all stations. */
export function countRounds(segments: readonly Segment[], section: Section, reading: Readings['round']): void {
  switch (reading) {
    case 'pass':
      return
    case 'interval':
      return countIntervals(segments)
    case 'thereAndBack':
      return formatOf(section).thereAndBack?.(section, segments)
  }
}

/** Every work interval is a round; the rest after it belongs to it. */
function countIntervals(segments: readonly Segment[]): void {
  const rounds = segments.filter((segment) => segment.kind === 'work').length
  let round = 0
  for (const segment of segments) {
    if (segment.kind === 'work') round++
    const counted = segment.kind === 'work' || segment.kind === 'rest'
    Object.assign(segment, {
      round: counted && round ? round : null,
      rounds: counted && round ? rounds : null,
      set: null,
      sets: null,
      station: null,
      stations: null,
    })
  }
}
