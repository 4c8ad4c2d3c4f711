// Workouts in the database: read, made, saved with the revision they were made from, put away. What the shelf shows is
// written in the same transaction as the score.
import type { TransactionSql } from 'postgres'
import { tryExpand } from '../core/expand/expand'
import { Problem } from '../core/problem'
import { scoreSchema, type Score } from '../core/score/score'
import { isKnown, isMadeFrom, type Save, type Version } from '../core/version'
import { readSettingsOf, SETTING_NAMES, type SettingName, type Settings } from '../core/workout/settings'
import type { CalendarSession } from '../core/write/calendar'
import { clipped } from '../core/text'
import { texts } from '../core/words/en/screens'
import { inTransaction, sql } from './db'
import { factsOf, writeFacts, type PlanState, type ShelfFacts } from './shelfFacts'

export interface Workout extends Settings {
  id: string
  score: Score
  version: Version
  isDemo: boolean
  updatedAt: Date
}

interface Row extends Record<SettingName, unknown> {
  id: string
  score: unknown
  score_revision: number
  score_key: string | null
  is_demo: boolean
  updated_at: Date
}

const fromRow = (row: Row): Workout => ({
  id: row.id,
  score: scoreSchema.parse(row.score),
  version: { revision: row.score_revision, key: row.score_key },
  ...readSettingsOf(row),
  isDemo: row.is_demo,
  updatedAt: row.updated_at,
})

/** A workout as it stands on the shelf. */
export interface ShelfEntry {
  id: string
  title: string
  totalMs: number
  workMs: number
  planState: PlanState
  isDemo: boolean
  updatedAt: Date
  /** Null where it cannot be read any more. */
  score: Score | null
  /** How far along: footage that is ready, ties on it, a video. */
  filmed: boolean
  tied: boolean
  rendered: boolean
  /** Of its footage and videos; null where it stands on the shelf and nobody asks. */
  bytes: number | null
}

export const SHELF_ORDERS = ['changed', 'title', 'length'] as const
export type ShelfOrder = (typeof SHELF_ORDERS)[number]

/** What is looked for on the shelf. */
export interface ShelfQuestion {
  /** Part of a title, or of the name of a move in it. */
  search: string
  order: ShelfOrder
  /** Those that were taken off, in place of those that stand there. */
  removed: boolean
}
export const WHOLE_SHELF: ShelfQuestion = { search: '', order: 'changed', removed: false }

/** A place on the shelf, for the page after it: the value it is sorted by, as text. */
export interface ShelfMark {
  value: string
  id: string
}

export const SHELF_PAGE = 24

/** One page of the shelf. @param after the last entry of the page before. */
export async function shelfPage(
  after: ShelfMark | null,
  question: ShelfQuestion = WHOLE_SHELF,
): Promise<{ entries: ShelfEntry[]; next: ShelfMark | null }> {
  interface ShelfRow extends Omit<
    Row,
    'mix' | 'cues' | 'cut' | 'framing' | 'proof' | 'thumbnail' | 'score_revision' | 'score_key'
  > {
    title: string
    total_ms: string
    work_ms: string
    plan_state: PlanState
    mark: string
    filmed: boolean
    tied: boolean
    rendered: boolean
    bytes: string | null
  }
  const { by, beyond } = orderOf(question.order, after)
  const found = question.search ? foundBy(question.search) : sql()``
  const where = question.removed ? sql()`removed_at is not null` : sql()`removed_at is null`
  const size = sql()`(select coalesce(sum(bytes), 0) from footage where workout_id = workouts.id)
    + (select coalesce(sum(video_bytes), 0) from packs where workout_id = workouts.id)`
  const rows = await sql()<ShelfRow[]>`
    select id, title, total_ms, work_ms, plan_state, score, is_demo, updated_at, ${by}::text as mark,
      exists (select 1 from footage where workout_id = workouts.id and place is not null and state = 'ready') as filmed,
      exists (select 1 from stitches join footage on footage.id = footage_id
        where stitches.workout_id = workouts.id and place is not null) as tied,
      exists (select 1 from packs where workout_id = workouts.id) as rendered,
      ${question.removed ? size : sql()`null`} as bytes
    from workouts where ${where} ${found} ${beyond}
    order by ${by} ${question.order === 'changed' ? sql()`desc, id desc` : sql()`asc, id asc`} limit ${SHELF_PAGE + 1}`
  const shown = rows.slice(0, SHELF_PAGE)
  const last = shown.at(-1)
  return {
    entries: shown.map((row) => ({
      id: row.id,
      title: row.title,
      totalMs: Number(row.total_ms),
      workMs: Number(row.work_ms),
      planState: row.plan_state,
      isDemo: row.is_demo,
      updatedAt: row.updated_at,
      score: scoreSchema.safeParse(row.score).data ?? null,
      filmed: row.filmed,
      tied: row.tied,
      rendered: row.rendered,
      bytes: row.bytes === null ? null : Number(row.bytes),
    })),
    next: rows.length > SHELF_PAGE && last ? { value: last.mark, id: last.id } : null,
  }
}

type Fragment = ReturnType<ReturnType<typeof sql>>

/** What a page is sorted by, and where the next one begins. */
function orderOf(order: ShelfOrder, after: ShelfMark | null): { by: Fragment; beyond: Fragment } {
  switch (order) {
    case 'changed':
      return {
        by: sql()`updated_at`,
        beyond: after ? sql()`and (updated_at, id) < (${after.value}::timestamptz, ${after.id}::uuid)` : sql()``,
      }
    case 'title':
      return {
        by: sql()`lower(title)`,
        beyond: after ? sql()`and (lower(title), id) > (${after.value}, ${after.id}::uuid)` : sql()``,
      }
    case 'length':
      return {
        by: sql()`total_ms`,
        beyond: after ? sql()`and (total_ms, id) > (${after.value}::bigint, ${after.id}::uuid)` : sql()``,
      }
  }
}

function foundBy(search: string): Fragment {
  const pattern = `%${search.trim().replace(/[\\%_]/g, '\\$&')}%`
  return sql()`and (title ilike ${pattern} or exists
    (select 1 from workout_moves where workout_id = workouts.id and workout_moves.name ilike ${pattern}))`
}

/** How many were taken off the shelf. */
export async function countRemoved(): Promise<number> {
  const [row] = await sql()<{ count: string }[]>`select count(*) from workouts where removed_at is not null`
  return Number(row?.count ?? 0)
}

/** @throws Problem `not-found`, or `bad-document` where the score cannot be read any more. */
export async function findWorkout(id: string): Promise<Workout> {
  const [row] = await sql()<Row[]>`
    select id, score, score_revision, score_key, ${sql()(SETTING_NAMES)}, is_demo, updated_at
    from workouts where id = ${id} and removed_at is null`
  if (!row) throw new Problem({ code: 'not-found', what: 'workout' })
  return fromRow(row)
}

/** The workouts of a series in order of their titles, numbers as numbers; of none, that one. */
export async function seriesOf(id: string, name: string): Promise<CalendarSession[]> {
  const rows = await sql()<{ id: string; title: string; total_ms: string }[]>`
    select id, title, total_ms from workouts
    where removed_at is null and (id = ${id} or (${name} <> '' and score #>> '{series,name}' = ${name})) limit 1000`
  const inOrder = new Intl.Collator('en', { numeric: true })
  return rows
    .map((row) => ({ id: row.id, title: row.title, lengthMs: Number(row.total_ms) }))
    .sort((one, other) => inOrder.compare(one.title, other.title))
}

/** The score as it is stored, readable or not. @throws Problem `not-found`. */
export async function storedScore(id: string): Promise<{ title: string; score: unknown }> {
  const [row] = await sql()<{ title: string; score: unknown }[]>`select title, score from workouts where id = ${id}`
  if (!row) throw new Problem({ code: 'not-found', what: 'workout' })
  return row
}

function factsWithinLimits(score: Score): ShelfFacts {
  const unfolding = tryExpand(score)
  if (unfolding.problem) throw new Problem(unfolding.problem)
  return factsOf(score, unfolding)
}

/**
 * The plan of a workout once more, under a name of its own; footage and ties stay where they are.
 * @throws Problem `not-found`, `bad-document`.
 */
export async function copyWorkout(id: string): Promise<string> {
  const { score } = await findWorkout(id)
  return createWorkout({ ...score, title: clipped(texts.shelf.copyOf(score.title), 300) })
}

/** @throws Problem `too-many` or `too-long` for a score beyond the limits. */
export async function createWorkout(score: Score): Promise<string> {
  return inTransaction((tx) => addWorkout(tx, score))
}

/** The same in the caller's transaction. */
export async function addWorkout(tx: TransactionSql, score: Score, isDemo = false): Promise<string> {
  const facts = factsWithinLimits(score)
  const [row] = await tx<{ id: string }[]>`
    insert into workouts (score, is_demo) values (${tx.json(score as never)}, ${isDemo}) returning id`
  if (!row) throw new Error('insert returned no row')
  await writeFacts(tx, row.id, facts)
  return row.id
}

/**
 * Saves a score over the revision that it was made from, under a key that the page made up for this save.
 * @returns the new version.
 * @throws Problem `stale`, with the version there is, when somebody saved in between, `not-found`, or `too-many` or
 * `too-long` for a score beyond the limits: it is refused here, and not when it is read.
 */
export async function saveScore(id: string, score: Score, save: Save): Promise<Version> {
  const facts = factsWithinLimits(score)
  return inTransaction(async (tx) => {
    const [row] = await tx<Pick<Row, 'score_revision' | 'score_key'>[]>`
      select score_revision, score_key from workouts where id = ${id} and removed_at is null for update`
    if (!row) throw new Problem({ code: 'not-found', what: 'workout' })
    const now = { revision: row.score_revision, key: row.score_key }
    if (isKnown(now, save)) return now
    if (!isMadeFrom(now, save)) throw new Problem({ code: 'stale', what: 'score', now })
    return putScore(tx, id, { score, facts, key: save.key })
  })
}

interface Put {
  score: Score
  facts?: ShelfFacts
  /** Default: none, as it was not a page that saved. */
  key?: string | null
}

/** Writes a score with all that follows from it. @returns the new version. */
export async function putScore(
  tx: TransactionSql,
  id: string,
  { score, facts = factsOf(score), key = null }: Put,
): Promise<Version> {
  const [row] = await tx<{ score_revision: number }[]>`
    update workouts set score = ${tx.json(score as never)}, score_revision = score_revision + 1, score_key = ${key},
      updated_at = now()
    where id = ${id} returning score_revision`
  await writeFacts(tx, id, facts)
  return { revision: row?.score_revision ?? 0, key }
}

/** Takes a workout off the shelf, or puts it back; nothing is erased. */
export async function setRemoved(id: string, removed: boolean): Promise<void> {
  const rows =
    await sql()`update workouts set removed_at = ${removed ? new Date() : null} where id = ${id} returning id`
  if (!rows.length) throw new Problem({ code: 'not-found', what: 'workout' })
}
