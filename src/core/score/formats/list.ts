// Free list (F21): any intervals in any order, as an interval table brings them.
import { z } from 'zod'
import type { Cast } from '../cast'
import { head } from '../primitives'
import { boundsOf } from '../pace'
import type { Segment } from '../segment'
import { counted } from '../vocabulary'
import { fieldSchema, optionalChoice } from './fields'
import { defineFormat, type Format } from './format'
import { FORMAT_NAMES, type FormatName } from './names'
import { rowSchema, type ListRow } from './row'

/** The format that it was before it was turned into a list, so that it can be recognised as that again. */
const FROM = optionalChoice('from', 'was', FORMAT_NAMES)
export const listSchema = z.object({
  format: z.literal('list'),
  ...head,
  rows: z.array(rowSchema).max(50_000),
  from: fieldSchema(FROM) as z.ZodType<FormatName | null>,
})
export type FreeList = z.infer<typeof listSchema>

export const list: Format<FreeList> = defineFormat('list', {
  schema: listSchema,
  notation: { head: 'list', fields: [FROM], moves: 'rows' },
  works: ({ rows }) => rows.length,
  expand({ key, rows }, { cast, words }) {
    const rounds = most(rows, 'round'),
      sets = most(rows, 'set')
    const stationOf = stationsIn(rows)
    return rows.map((row, index): Segment => {
      const { station, stations } = stationOf(row)
      return {
        id: `${key}/${row.key}`,
        row: 0,
        kind: row.kind,
        section: '',
        round: row.round,
        rounds: row.round === null ? null : rounds,
        set: row.set,
        sets: row.set === null ? null : sets,
        station,
        stations,
        block: null,
        blocks: null,
        label: row.label,
        side: row.side,
        firstSide: 'left',
        reverses: false,
        startMs: 0,
        ...lengthOf(row),
        slot: null,
        ...factsOf(row, cast),
        reps: row.reps,
        repIs: '',
        weight: null,
        note: '',
        sectionKey: key,
        words,
        origin: {
          station: ['rows', index],
          pass: 1,
          length: { field: ['rows', index, 'durationMs'], baseMs: 0, times: 1 },
        },
      }
    })
  },
  describe: ({ rows }) => `${counted(rows.length, { one: 'interval', many: 'intervals' })}, one by one`,
})

const factsOf = (row: ListRow, cast: Cast): Pick<Segment, 'posture' | 'endPosture' | 'effort' | 'moves'> => {
  if (row.kind !== 'work') return { posture: null, endPosture: null, effort: null, moves: [] }
  const move = cast(row.label)
  const posture = row.posture ?? move.posture
  return { posture, endPosture: row.posture ?? move.endPosture, effort: row.effort ?? move.effort, moves: [row.label] }
}

const lengthOf = ({
  kind,
  durationMs,
  estimated,
}: ListRow): Pick<Segment, 'durationMs' | 'pace' | 'estimated' | 'minMs' | 'maxMs'> => {
  const ms = durationMs ?? 0
  const pace = kind === 'talk' ? 'open' : estimated ? 'own' : 'fixed'
  const { minMs, maxMs } = boundsOf(pace, ms)
  return { durationMs: ms, pace, estimated: pace !== 'fixed', minMs, maxMs }
}

const most = (rows: readonly ListRow[], counter: 'round' | 'set'): number | null =>
  rows.reduce<number | null>((top, row) => {
    const value = row[counter]
    return value === null ? top : Math.max(top ?? 0, value)
  }, null)

const groupOf = (row: ListRow): string => `${row.set ?? ''}/${row.round ?? ''}`

/** Which work of its set and round a row is, or belongs to; asked row by row, in order. */
function stationsIn(rows: readonly ListRow[]): (row: ListRow) => Pick<Segment, 'station' | 'stations'> {
  const all = new Map<string, number>(),
    seen = new Map<string, number>()
  for (const row of rows) if (row.kind === 'work') all.set(groupOf(row), (all.get(groupOf(row)) ?? 0) + 1)
  return (row) => {
    const group = groupOf(row)
    if (row.kind === 'work') seen.set(group, (seen.get(group) ?? 0) + 1)
    const station = row.kind === 'work' || row.kind === 'rest' ? (seen.get(group) ?? null) : null
    return { station, stations: station === null ? null : (all.get(group) ?? null) }
  }
}
