// Free list (F21): any intervals in any order, as an interval table brings them.
import { z } from 'zod'
import { counted } from '../vocabulary'
import { head, type Format } from './format'
import { FORMAT_NAMES } from './names'
import { rowSchema, type ListRow } from './row'
import type { Segment } from '../segment'

const schema = z.object({
  format: z.literal('list'),
  ...head,
  rows: z.array(rowSchema).max(50_000),
  /** The format that it was before it was turned into a list, so that it can be recognised as that again. */
  from: z.enum(FORMAT_NAMES).nullable().default(null),
})
export type FreeList = z.infer<typeof schema>
export { schema as listSchema }

export const list: Format<FreeList> = {
  schema,
  notation: {
    head: 'list',
    moves: 'none',
    fields: [{ kind: 'choice', field: 'from', word: 'was', options: FORMAT_NAMES, bare: '' }],
  },
  defaults: (key, name) => ({ format: 'list', key, name, above: [], beside: '', rows: [], from: null }),
  expand(section, { cast, words }) {
    const rounds = most(section.rows, 'round'),
      sets = most(section.rows, 'set')
    const groupOf = (row: ListRow): string => `${row.set ?? ''}/${row.round ?? ''}`
    const stationsIn = new Map<string, number>(),
      seen = new Map<string, number>(),
      taken = new Map<string, number>()
    for (const row of section.rows)
      if (row.kind === 'work') stationsIn.set(groupOf(row), (stationsIn.get(groupOf(row)) ?? 0) + 1)
    return section.rows.map((row, index): Segment => {
      const group = groupOf(row)
      if (row.kind === 'work') seen.set(group, (seen.get(group) ?? 0) + 1)
      const station = row.kind === 'work' || row.kind === 'rest' ? (seen.get(group) ?? null) : null
      const stem =
        section.key +
        (row.set === null ? '' : `/g${row.set}`) +
        (row.round === null ? '' : `/r${row.round}`) +
        (station === null ? '' : `/s${station}`) +
        `/${row.kind}`
      const again = (taken.get(stem) ?? 0) + 1
      taken.set(stem, again)
      const work = row.kind === 'work' ? cast(row.label) : null
      return {
        id: again > 1 ? `${stem}-${again}` : stem,
        row: 0,
        kind: row.kind,
        section: '',
        round: row.round,
        rounds: row.round === null ? null : rounds,
        set: row.set,
        sets: row.set === null ? null : sets,
        station,
        stations: station === null ? null : (stationsIn.get(group) ?? null),
        label: row.label,
        side: row.side,
        startMs: 0,
        durationMs: row.durationMs ?? 0,
        estimated: row.estimated || row.kind === 'talk',
        posture: work ? (row.posture ?? work.posture) : null,
        effort: work ? (row.effort ?? work.effort) : null,
        reps: row.reps,
        moves: work ? [row.label] : [],
        note: '',
        sectionKey: section.key,
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
}

const most = (rows: readonly ListRow[], counter: 'round' | 'set'): number | null =>
  rows.reduce<number | null>((top, row) => {
    const value = row[counter]
    return value === null ? top : Math.max(top ?? 0, value)
  }, null)
