// Footage in the database: what was uploaded, what it turned out to be, what was heard in it, and where its proxy and
// peaks are kept. Which of it a workout uses, and in what order, is its reel's: `reel.ts`.
import type { Fragment } from 'postgres'
import { evidenceSchema, EVIDENCE_VERSION, type Evidence, type EvidenceKind } from '../core/evidence'
import type { CaptionEvidence } from '../core/hear/captions'
import { Problem } from '../core/problem'
import { problemSentence } from '../core/words/en/problems'
import type { Ms, Ppm, Share } from '../core/units'
import { footageFactsSchema, type FootageFacts } from '../engine/probe'
import { inTransaction, sql } from './db'
import { addJob, tellChange, type Db } from './jobs'

export interface Footage {
  id: string
  workoutId: string
  name: string
  bytes: number
  upload: string | null
  hash: string | null
  state: 'preparing' | 'ready' | 'failed'
  /** Its place in the reel; null on its way in, and where it was put aside. */
  place: number | null
  problem: string | null
  warning: string | null
  facts: FootageFacts | null
  proxyHash: string | null
  peaksHash: string | null
  /** What of the plan it shows; null where nothing in it is sure. */
  planMs: Ms | null
  /** Whose place it takes when it is ready. */
  replaces: string | null
  /** The footage whose sound it shares, and where in its time. */
  beside: { id: string; atMs: Ms; driftPpm: Ppm } | null
}

interface Row {
  id: string
  workout_id: string
  name: string
  bytes: string
  upload: string | null
  hash: string | null
  state: Footage['state']
  place: number | null
  problem: string | null
  warning: string | null
  missing_at: Date | null
  facts: unknown
  proxy_hash: string | null
  peaks_hash: string | null
  plan_ms: number | null
  replaces: string | null
  beside: string | null
  beside_ms: number | null
  beside_ppm: number
}

const COLUMNS = [
  ...[
    'id',
    'workout_id',
    'name',
    'bytes',
    'upload',
    'hash',
    'state',
    'place',
    'problem',
    'warning',
    'missing_at',
    'facts',
  ],
  ...['proxy_hash', 'peaks_hash', 'plan_ms', 'replaces', 'beside', 'beside_ms', 'beside_ppm'],
]

const fromRow = (row: Row): Footage => ({
  id: row.id,
  workoutId: row.workout_id,
  name: row.name,
  bytes: Number(row.bytes),
  upload: row.upload,
  hash: row.hash,
  state: row.state,
  place: row.place,
  problem: row.problem,
  warning: row.missing_at ? problemSentence({ code: 'footage-missing' }) : row.warning,
  facts: row.facts === null ? null : footageFactsSchema.parse(row.facts),
  proxyHash: row.proxy_hash,
  peaksHash: row.peaks_hash,
  planMs: row.plan_ms,
  replaces: row.replaces,
  beside: row.beside === null ? null : { id: row.beside, atMs: row.beside_ms ?? 0, driftPpm: row.beside_ppm },
})

/** Rows of a query for footage, as footage. @param where what follows `from footage`. */
export async function footageWhere(where: Fragment, db: Db = sql()): Promise<Footage[]> {
  return (await db<Row[]>`select ${db(COLUMNS)} from footage ${where}`).map(fromRow)
}

/** @throws Problem `not-found`. */
export async function findFootage(id: string): Promise<Footage> {
  const [row] = await sql()<Row[]>`select ${sql()(COLUMNS)} from footage where id = ${id}`
  if (!row) throw new Problem({ code: 'not-found', what: 'footage' })
  return fromRow(row)
}

/**
 * What the page works on: the first of the reel; before there is one, what is on its way in, else the newest failure.
 */
export async function currentFootage(workoutId: string): Promise<Footage | null> {
  const [row] = await sql()<Row[]>`
    select ${sql()(COLUMNS)} from footage where workout_id = ${workoutId} and put_aside_at is null
    order by place nulls last, (state = 'failed'), created_at desc limit 1`
  return row ? fromRow(row) : null
}

/** The newest footage that was not put aside, failed or not: what the last upload came to. */
export async function newestFootage(workoutId: string): Promise<Footage | null> {
  const [row] = await sql()<Row[]>`
    select ${sql()(COLUMNS)} from footage where workout_id = ${workoutId} and put_aside_at is null
    order by created_at desc limit 1`
  return row ? fromRow(row) : null
}

export interface FootageAside {
  id: string
  name: string
  /** Ties that wait with it. */
  ties: number
  bytes: number
}

/** Footage that was put aside, the last first. */
export async function footageAside(workoutId: string): Promise<FootageAside[]> {
  const rows = await sql()<(Omit<FootageAside, 'bytes'> & { bytes: string })[]>`
    select id, name, bytes, (select count(*)::integer from stitches where footage_id = footage.id) as ties
    from footage where workout_id = ${workoutId} and put_aside_at is not null and state = 'ready'
    order by put_aside_at desc`
  return rows.map((row) => ({ ...row, bytes: Number(row.bytes) }))
}

/** The same file in the same workout, ready from an earlier upload. */
export async function twinOf({ id, workoutId }: Footage, hash: string): Promise<Footage | null> {
  const [row] = await sql()<Row[]>`
    select ${sql()(COLUMNS)} from footage
    where workout_id = ${workoutId} and hash = ${hash} and state = 'ready' and id <> ${id}
    order by place nulls last, put_aside_at desc limit 1`
  return row ? fromRow(row) : null
}

interface EvidenceRow {
  kind: string
  at_ms: number
  spread_ms: number
  strength: number
  payload: Record<string, unknown>
}

/** What was heard and seen in a footage, in order of time. */
export async function evidenceOf(footageId: string): Promise<Evidence[]> {
  const rows = await sql()<EvidenceRow[]>`
    select kind, at_ms, spread_ms, strength, payload from evidence where footage_id = ${footageId} order by at_ms, id`
  return rows.map(({ kind, at_ms, spread_ms, strength, payload }) =>
    evidenceSchema.parse({ ...payload, kind, atMs: at_ms, spreadMs: spread_ms, strength }),
  )
}

export type HeardSoFar = Partial<Record<EvidenceKind, number>>

/** What an earlier attempt heard before it was ended, by piece. */
export async function heardPieces(footageId: string): Promise<Map<number, Evidence[]>> {
  const rows = await sql()<{ piece: number; evidence: unknown }[]>`
    select piece, evidence from heard_pieces where footage_id = ${footageId} and engine = ${EVIDENCE_VERSION}`
  return new Map(rows.map(({ piece, evidence }) => [piece, evidenceSchema.array().parse(evidence)]))
}

/** From here on something heard is worth a number while the hearing goes on. */
const STANDS_OUT: Share = 0.5

/** How much of each kind a hearing that is not finished has heard so far. */
export async function heardSoFar(footageId: string): Promise<HeardSoFar> {
  const rows = await sql()<{ kind: EvidenceKind; count: number }[]>`
    select one->>'kind' as kind, count(*)::int as count
    from heard_pieces, jsonb_array_elements(evidence) as one
    where footage_id = ${footageId} and engine = ${EVIDENCE_VERSION} and (one->>'strength')::float8 >= ${STANDS_OUT}
    group by 1`
  return Object.fromEntries(rows.map(({ kind, count }) => [kind, count]))
}

export async function keepPiece(footageId: string, piece: number, evidence: readonly Evidence[]): Promise<void> {
  await sql()`
    insert into heard_pieces (footage_id, engine, piece, evidence)
    values (${footageId}, ${EVIDENCE_VERSION}, ${piece}, ${sql().json(evidence as never)})
    on conflict do nothing`
}

/** Puts what this engine heard in the place of what was there. Captions were given, not heard: they stay. */
export async function saveEvidence(tx: Db, footageId: string, evidence: readonly Evidence[]): Promise<void> {
  await tx`delete from heard_pieces where footage_id = ${footageId}`
  await tx`delete from evidence where footage_id = ${footageId} and kind not in ('caption', 'said')`
  await tx`update evidence set engine = ${EVIDENCE_VERSION} where footage_id = ${footageId}`
  await addEvidence(tx, footageId, evidence)
}

/** Puts what captions tell in the place of those of earlier captions. */
export async function saveCaptions(footageId: string, captions: readonly CaptionEvidence[]): Promise<void> {
  await inTransaction(async (tx) => {
    await tx`delete from evidence where footage_id = ${footageId} and kind in ('caption', 'said')`
    await addEvidence(tx, footageId, captions)
  })
}

/** Adds to what was heard. */
export async function addEvidence(tx: Db, footageId: string, evidence: readonly Evidence[]): Promise<void> {
  const rows = evidence.map(({ kind, atMs, spreadMs, strength, ...payload }) => ({
    kind,
    at_ms: atMs,
    spread_ms: spreadMs,
    strength,
    payload,
  }))
  await tx`
    insert into evidence (footage_id, engine, kind, at_ms, spread_ms, strength, payload)
    select ${footageId}, ${EVIDENCE_VERSION}, kind, at_ms, spread_ms, strength, payload
    from jsonb_to_recordset(${tx.json(rows as never)}) as one
      (kind text, at_ms float8, spread_ms real, strength real, payload jsonb)`
}

/** Codecs of high dynamic range. */
const MAYBE_HDR = ['hevc', 'av1', 'vp9']

/**
 * Ready footage that an older Jivet measured, before it knew where instant 0 lies or what is filmed in high dynamic
 * range, or that an older engine heard.
 */
export async function outdatedFootage(): Promise<{ id: string; workoutId: string }[]> {
  return sql()<{ id: string; workoutId: string }[]>`
    select id, workout_id as "workoutId" from footage where state = 'ready'
      and (not facts ? 'zeroS'
        or (not facts ? 'hdr' and facts->>'videoCodec' = any(${MAYBE_HDR}))
        or exists (select 1 from evidence where footage_id = footage.id and engine < ${EVIDENCE_VERSION}))
      and not exists (select 1 from jobs where footage_id = footage.id and kind = 'prepare' and state in ('queued', 'active'))`
}

export interface FinishedUpload {
  workoutId: string
  /** As shown. */
  name: string
  bytes: number
  /** Its file's name in the folder of uploads. */
  upload: string
  /** The footage whose place it takes; null where it comes beside what is there. */
  replaces?: string | null
}

/**
 * Records a finished upload and queues its preparing, both or neither. Called again for the same upload (after a
 * crash), it returns what is there.
 */
export async function addFootage(finished: FinishedUpload, db?: Db): Promise<string> {
  if (!db) return inTransaction((tx) => addFootage(finished, tx))
  const { workoutId, name, bytes, upload, replaces = null } = finished
  const [fresh] = await db<{ id: string }[]>`
    insert into footage (workout_id, name, bytes, upload, replaces)
    values (${workoutId}, ${name}, ${bytes}, ${upload},
      (select id from footage where id = ${replaces} and workout_id = ${workoutId}))
    on conflict (upload) do nothing returning id`
  if (fresh) await addJob(db, { kind: 'prepare', workoutId, footageId: fresh.id })
  const [row] = fresh ? [fresh] : await db<{ id: string }[]>`select id from footage where upload = ${upload}`
  if (!row) throw new Error('an upload that is neither new nor known')
  return row.id
}

/**
 * Takes up once more what failed to be prepared.
 * @throws Problem `not-found`, or `nothing-to-try` for footage that is ready or on its way.
 */
export async function prepareAgain(id: string): Promise<void> {
  await inTransaction(async (tx) => {
    const [row] = await tx<{ workout_id: string; state: Footage['state'] }[]>`
      select footage.workout_id, state from footage join workouts on workouts.id = workout_id
      where footage.id = ${id} for update`
    if (!row) throw new Problem({ code: 'not-found', what: 'footage' })
    if (row.state !== 'failed') throw new Problem({ code: 'nothing-to-try' })
    await tx`update footage set state = 'preparing', problem = null where id = ${id}`
    await addJob(tx, { kind: 'prepare', workoutId: row.workout_id, footageId: id })
    await tellChange(row.workout_id, tx)
  })
}

type Change = Partial<
  Pick<Footage, 'hash' | 'upload' | 'state' | 'problem' | 'warning' | 'proxyHash' | 'peaksHash' | 'planMs' | 'beside'>
> & { facts?: FootageFacts }

export async function updateFootage(id: string, change: Change, db: Db = sql()): Promise<void> {
  const { facts, proxyHash, peaksHash, planMs, beside, ...plain } = change
  const row = {
    ...plain,
    ...(facts ? { facts: db.json(facts) } : {}),
    ...(proxyHash !== undefined ? { proxy_hash: proxyHash } : {}),
    ...(peaksHash !== undefined ? { peaks_hash: peaksHash } : {}),
    ...(planMs !== undefined ? { plan_ms: planMs } : {}),
    ...(beside !== undefined
      ? { beside: beside?.id ?? null, beside_ms: beside?.atMs ?? null, beside_ppm: beside?.driftPpm ?? 0 }
      : {}),
  }
  await db`update footage set ${db(row as Record<string, string>)} where id = ${id}`
}

const MOST_NAME_LETTERS = 200

/** A file's name as shown: its last part, without control characters, shortened. It is never used as a path. */
export function shownName(name: string): string {
  const last = name.split(/[\\/]/).at(-1) ?? ''
  const clean = [...last.replace(/[\p{Cc}\u202a-\u202e\u2066-\u2069]/gu, '').trim()]
  if (!clean.length || clean.join('') === '..') return 'footage'
  return clean.length > MOST_NAME_LETTERS ? `${clean.slice(0, MOST_NAME_LETTERS - 3).join('')}...` : clean.join('')
}
