// Jobs as the page sees them: our own rows are the record; the queue only delivers. A job is claimed by one update,
// so a message that arrives twice does its work once.
import { Problem } from '../core/problem'
import { problemSentence } from '../core/words/en/problems'
import { sql } from './db'
import type { Share } from '../core/units'

export type JobKind = 'prepare' | 'render'

export interface Job {
  id: string
  kind: JobKind
  workoutId: string
  footageId: string | null
  state: 'queued' | 'active' | 'done' | 'failed' | 'cancelled'
  /** 0 to 1. */
  share: Share
  problem: string | null
  startedAt: Date | null
}

interface Row {
  id: string
  kind: JobKind
  workout_id: string
  footage_id: string | null
  state: Job['state']
  share: Share
  problem: string | null
  started_at: Date | null
}

const fromRow = (row: Row): Job => ({
  id: row.id,
  kind: row.kind,
  workoutId: row.workout_id,
  footageId: row.footage_id,
  state: row.state,
  share: row.share,
  problem: row.problem,
  startedAt: row.started_at,
})

/** The channel on which every change of a workout's jobs and footage is told; the payload is the workout's id. */
export const CHANGES = 'jivet_changes'
/** The channel on which a cancel is told; the payload is the job's id. */
export const CANCELS = 'jivet_cancels'

/** A worker that was heard of less than this ago is alive. */
const ALIVE_SECONDS = 12
const MOST_ATTEMPTS = 4

export async function tellChange(workoutId: string): Promise<void> {
  await sql().notify(CHANGES, workoutId)
}

export async function createJob(kind: JobKind, workoutId: string, footageId: string | null): Promise<string> {
  const [row] = await sql()<
    { id: string }[]
  >`insert into jobs ${sql()({ kind, workout_id: workoutId, footage_id: footageId })} returning id`
  if (!row) throw new Error('insert returned no row')
  await tellChange(workoutId)
  return row.id
}

/** The newest job of each kind. */
export async function recentJobs(workoutId: string): Promise<Job[]> {
  return (
    await sql()<
      Row[]
    >`select distinct on (kind) * from jobs where workout_id = ${workoutId} order by kind, created_at desc`
  ).map(fromRow)
}

/** Takes a queued job. @returns null when it was taken, ended or cancelled before. */
export async function claimJob(id: string): Promise<Job | null> {
  const [row] = await sql()<Row[]>`
    update jobs set state = 'active', attempts = attempts + 1, started_at = now(), heartbeat_at = now(), share = 0
    where id = ${id} and state = 'queued' returning *`
  if (row) await tellChange(row.workout_id)
  return row ? fromRow(row) : null
}

export async function reportShare(job: Job, share: Share): Promise<void> {
  await sql()`update jobs set share = ${share}, heartbeat_at = now() where id = ${job.id} and state = 'active'`
  await tellChange(job.workoutId)
}

export async function endJob(
  job: Job,
  state: 'done' | 'failed' | 'cancelled',
  problem: string | null = null,
): Promise<void> {
  await sql()`update jobs set state = ${state}, problem = ${problem}, share = ${state === 'done' ? 1 : sql()`share`}, ended_at = now() where id = ${job.id}`
  await tellChange(job.workoutId)
}

/**
 * Asks for a stop: a queued job ends at once, an active one when its worker hears of it.
 * @throws Problem `not-found`.
 */
export async function cancelJob(id: string): Promise<void> {
  const [row] = await sql()<{ workout_id: string }[]>`
    update jobs set cancel_asked = true, state = case when state = 'queued' then 'cancelled' else state end,
      ended_at = case when state = 'queued' then now() else ended_at end
    where id = ${id} returning workout_id`
  if (!row) throw new Problem({ code: 'not-found', what: 'job' })
  await sql().notify(CANCELS, id)
  await tellChange(row.workout_id)
}

/**
 * Puts jobs whose worker has died back in the queue, or ends those that died too often.
 * @returns ids of all jobs that wait, for the queue to deliver again.
 */
export async function recoverJobs(): Promise<string[]> {
  const stale = sql()`state = 'active' and heartbeat_at < now() - ${`${ALIVE_SECONDS} seconds`}::interval`
  await sql()`update jobs set state = 'failed', ended_at = now(),
    problem = ${problemSentence({ code: 'broke-off-often' })}
    where ${stale} and attempts >= ${MOST_ATTEMPTS}`
  await sql()`update jobs set state = 'queued', share = 0 where ${stale}`
  return (await sql()<{ id: string }[]>`select id from jobs where state = 'queued' order by created_at`).map(
    (row) => row.id,
  )
}
