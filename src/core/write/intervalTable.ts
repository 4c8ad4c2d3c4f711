// Writes segments as the interval table, the twin of `read/intervalTable`.
import { stringify } from 'csv-stringify/sync'
import { ESTIMATED, TABLE_HEADER } from '../read/intervalTable'
import type { Segment } from '../score/segment'
import { guarded } from './cell'

/**
 * CSV with header; talk keeps its guess, or an empty cell where there is none. A guess at counted work is marked in a
 * column of its own.
 */
export function writeIntervalTable(segments: readonly Segment[]): string {
  const guesses = segments.some(({ kind, estimated }) => estimated && kind !== 'talk')
  const rows = segments.map(({ section, round, kind, label, side, durationMs, estimated }) => {
    const cells = [
      guarded(section),
      round ?? '',
      kind,
      guarded(label),
      side ?? '',
      kind === 'talk' && !durationMs ? '' : durationMs / 1000,
    ]
    return guesses ? [...cells, estimated ? 'yes' : ''] : cells
  })
  return stringify([guesses ? [...TABLE_HEADER, ESTIMATED] : [...TABLE_HEADER], ...rows])
}
