// Writes segments as the interval table, the twin of `read/intervalTable`.
import { stringify } from 'csv-stringify/sync'
import { TABLE_HEADER } from '../read/intervalTable'
import type { Segment } from '../score/segment'

/** CSV with header; talk keeps its guess, or an empty cell where there is none. */
export function writeIntervalTable(segments: readonly Segment[]): string {
  const rows = segments.map(({ section, round, kind, label, side, durationMs }) =>
    [section, round ?? '', kind, label, side ?? '', kind === 'talk' && !durationMs ? '' : durationMs / 1000])
  return stringify([[...TABLE_HEADER], ...rows])
}
