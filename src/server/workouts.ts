// Workouts in the database: read, made, saved with the revision they were made from, put away.
import { Problem } from '../core/problem'
import { scoreSchema, type Score } from '../core/score/score'
import { sql } from './db'

export interface Workout {
  id: string
  score: Score
  scoreRevision: number
  stitchRevision: number
  isDemo: boolean
  updatedAt: Date
}

interface Row {
  id: string
  score: unknown
  score_revision: number
  stitch_revision: number
  is_demo: boolean
  updated_at: Date
}

const fromRow = (row: Row): Workout => ({
  id: row.id,
  score: scoreSchema.parse(row.score),
  scoreRevision: row.score_revision,
  stitchRevision: row.stitch_revision,
  isDemo: row.is_demo,
  updatedAt: row.updated_at,
})

export async function listWorkouts(): Promise<Workout[]> {
  return (await sql()<Row[]>`select * from workouts where removed_at is null order by updated_at desc limit 500`).map(
    fromRow,
  )
}

/** @throws Problem `not-found`. */
export async function findWorkout(id: string): Promise<Workout> {
  const [row] = await sql()<Row[]>`select * from workouts where id = ${id} and removed_at is null`
  if (!row) throw new Problem('not-found', 'There is no such workout; it may have been removed.')
  return fromRow(row)
}

export async function createWorkout(score: Score, isDemo = false): Promise<string> {
  const [row] = await sql()<
    { id: string }[]
  >`insert into workouts (score, is_demo) values (${sql().json(asJson(score))}, ${isDemo}) returning id`
  if (!row) throw new Error('insert returned no row')
  return row.id
}

/**
 * Saves a score over the revision that it was made from.
 * @returns the new revision. @throws Problem `stale` when somebody saved in between, `not-found`.
 */
export async function saveScore(id: string, score: Score, revision: number): Promise<number> {
  const [row] = await sql()<{ score_revision: number }[]>`
    update workouts set score = ${sql().json(asJson(score))}, score_revision = score_revision + 1, updated_at = now()
    where id = ${id} and score_revision = ${revision} and removed_at is null returning score_revision`
  if (row) return row.score_revision
  await findWorkout(id)
  throw new Problem('stale', 'This score was changed in another tab since you opened it.')
}

/** Takes a workout off the shelf, or puts it back; nothing is erased. */
export async function setRemoved(id: string, removed: boolean): Promise<void> {
  const rows =
    await sql()`update workouts set removed_at = ${removed ? new Date() : null} where id = ${id} returning id`
  if (!rows.length) throw new Problem('not-found', 'There is no such workout.')
}

const asJson = (score: Score): Parameters<ReturnType<typeof sql>['json']>[0] =>
  score as Parameters<ReturnType<typeof sql>['json']>[0]
