// Footage in the database: what was uploaded, what it turned out to be, and where its proxy and peaks are kept.
import type { Beep } from '../core/hear/tones'
import { Problem } from '../core/problem'
import type { FootageFacts } from '../engine/probe'
import { sql } from './db'

export interface Footage {
  id: string
  workoutId: string
  name: string
  bytes: number
  upload: string | null
  hash: string | null
  state: 'preparing' | 'ready' | 'failed'
  problem: string | null
  warning: string | null
  facts: FootageFacts | null
  proxyHash: string | null
  peaksHash: string | null
}

interface Row {
  id: string
  workout_id: string
  name: string
  bytes: string
  upload: string | null
  hash: string | null
  state: Footage['state']
  problem: string | null
  warning: string | null
  facts: FootageFacts | null
  proxy_hash: string | null
  peaks_hash: string | null
}

const COLUMNS = [
  'id',
  'workout_id',
  'name',
  'bytes',
  'upload',
  'hash',
  'state',
  'problem',
  'warning',
  'facts',
  'proxy_hash',
  'peaks_hash',
]

const fromRow = (row: Row): Footage => ({
  id: row.id,
  workoutId: row.workout_id,
  name: row.name,
  bytes: Number(row.bytes),
  upload: row.upload,
  hash: row.hash,
  state: row.state,
  problem: row.problem,
  warning: row.warning,
  facts: row.facts,
  proxyHash: row.proxy_hash,
  peaksHash: row.peaks_hash,
})

/** @throws Problem `not-found`. */
export async function findFootage(id: string): Promise<Footage> {
  const [row] = await sql()<Row[]>`select ${sql()(COLUMNS)} from footage where id = ${id}`
  if (!row) throw new Problem('not-found', 'There is no such footage.')
  return fromRow(row)
}

/** The newest footage of a workout that did not fail, else the newest failure, else null. */
export async function currentFootage(workoutId: string): Promise<Footage | null> {
  const [row] = await sql()<Row[]>`
    select ${sql()(COLUMNS)} from footage where workout_id = ${workoutId} order by (state = 'failed'), created_at desc limit 1`
  return row ? fromRow(row) : null
}

/** The newest footage, failed or not: what the last upload came to. */
export async function newestFootage(workoutId: string): Promise<Footage | null> {
  const [row] = await sql()<
    Row[]
  >`select ${sql()(COLUMNS)} from footage where workout_id = ${workoutId} order by created_at desc limit 1`
  return row ? fromRow(row) : null
}

export async function beepsOf(footageId: string): Promise<Beep[]> {
  const [row] = await sql()<{ beeps: Beep[] | null }[]>`select beeps from footage where id = ${footageId}`
  return row?.beeps ?? []
}

/** Records a finished upload. Called again for the same upload (after a crash), it returns what is there. */
export async function addFootage(workoutId: string, name: string, bytes: number, upload: string): Promise<string> {
  const [row] = await sql()<{ id: string }[]>`
    insert into footage ${sql()({ workout_id: workoutId, name, bytes, upload })}
    on conflict (upload) do update set name = excluded.name returning id`
  if (!row) throw new Error('insert returned no row')
  return row.id
}

type Change = Partial<
  Pick<Footage, 'hash' | 'upload' | 'state' | 'problem' | 'warning' | 'proxyHash' | 'peaksHash'>
> & { facts?: FootageFacts; beeps?: Beep[] }

export async function updateFootage(id: string, change: Change): Promise<void> {
  const { facts, beeps, proxyHash, peaksHash, ...plain } = change
  const json = (value: object): ReturnType<ReturnType<typeof sql>['json']> =>
    sql().json(value as Parameters<ReturnType<typeof sql>['json']>[0])
  const row = {
    ...plain,
    ...(facts ? { facts: json(facts) } : {}),
    ...(beeps ? { beeps: json(beeps) } : {}),
    ...(proxyHash ? { proxy_hash: proxyHash } : {}),
    ...(peaksHash ? { peaks_hash: peaksHash } : {}),
  }
  await sql()`update footage set ${sql()(row as Record<string, string>)} where id = ${id}`
}

const MOST_NAME_LETTERS = 200

/** A file's name as shown: its last part, without control characters, shortened. It is never used as a path. */
export function shownName(name: string): string {
  const last = name.split(/[\\/]/).at(-1) ?? ''
  const clean = [...last.replace(/[\p{Cc}\u202a-\u202e\u2066-\u2069]/gu, '').trim()]
  if (!clean.length || clean.join('') === '..') return 'footage'
  return clean.length > MOST_NAME_LETTERS ? `${clean.slice(0, MOST_NAME_LETTERS - 3).join('')}...` : clean.join('')
}
