// Free list (F21): any intervals in any order, as an interval table brings them.
import { z } from 'zod'
import { moveNamed } from '../moves'
import { SIDES } from '../postures'
import { KINDS, type Draft } from '../segment'
import { draft, key, ms, name, type Format } from './format'

const rowSchema = z.object({
  kind: z.enum(KINDS),
  label: name,
  side: z.enum(SIDES).nullable(),
  round: z.number().int().min(1).max(10_000).nullable(),
  /** Null only for talk: its length is not known. */
  durationMs: ms.nullable(),
})
export type ListRow = z.infer<typeof rowSchema>

const schema = z.object({ format: z.literal('list'), key, name, rows: z.array(rowSchema).max(50_000) })
export type FreeList = z.infer<typeof schema>

export const list: Format<FreeList> = {
  schema,
  defaults: (sectionKey, sectionName) => ({ format: 'list', key: sectionKey, name: sectionName, rows: [] }),
  expand: expandList,
  describe: (section) => `${section.rows.length} intervals, one by one`,
}
export const listSchema = schema

function expandList(section: FreeList): Draft[] {
  const rounds = section.rows.reduce<number | null>((most, row) => (row.round === null ? most : Math.max(most ?? 0, row.round)), null)
  const stationsIn = new Map<number | null, number>()
  for (const row of section.rows) {
    if (row.kind === 'work') stationsIn.set(row.round, (stationsIn.get(row.round) ?? 0) + 1)
  }
  const seen = new Map<number | null, number>()
  const taken = new Map<string, number>()
  return section.rows.map((row) => {
    if (row.kind === 'work') seen.set(row.round, (seen.get(row.round) ?? 0) + 1)
    const station = row.kind === 'work' || row.kind === 'rest' ? seen.get(row.round) ?? null : null
    const path = [section.key, row.round === null ? null : `r${row.round}`, station === null ? null : `s${station}`, row.kind]
    const id = path.filter((step) => step !== null).join('/')
    const again = (taken.get(id) ?? 0) + 1
    taken.set(id, again)
    const move = row.kind === 'work' ? moveNamed(row.label) : undefined
    return draft({
      id: again > 1 ? `${id}-${again}` : id,
      kind: row.kind, label: row.label, side: row.side,
      round: row.round, rounds: row.round === null ? null : rounds,
      station, stations: station === null ? null : stationsIn.get(row.round) ?? null,
      durationMs: row.durationMs ?? 0, estimated: row.kind === 'talk',
      posture: row.kind === 'work' ? move?.posture ?? 'standing' : null,
      effort: row.kind === 'work' ? move?.effort ?? 3 : null,
    })
  })
}
