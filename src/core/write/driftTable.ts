// Writes how a session ran against its plan as a table for a spreadsheet. Lengths are seconds.
import { stringify } from 'csv-stringify/sync'
import type { Drift } from '../align/drift'
import type { Ms } from '../units'
import { guarded } from './cell'

const HEADER = ['row', 'kind', 'round', 'label', 'planned', 'true', 'difference', 'running difference', 'sure']

const seconds = (ms: Ms | null): number | '' => (ms === null ? '' : ms / 1000)

/** CSV with header; what was not planned with a length has no difference. */
export function writeDriftTable({ rows }: Drift): string {
  return stringify([
    HEADER,
    ...rows.map(({ segment, plannedMs, lastedMs, offMs, runningMs, isSure }) => [
      ...[segment.row, segment.kind, segment.round ?? '', guarded(segment.label)],
      ...[seconds(plannedMs), seconds(lastedMs), seconds(offMs), seconds(runningMs), isSure ? 'yes' : 'no'],
    ]),
  ])
}
