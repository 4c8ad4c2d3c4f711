// Jobs: rows that are record and queue in one (docs/decisions/014). An attempt holds a claim, and every step of a job
// is one statement or transaction that holds only for that claim: who has lost it changes nothing.
import type { ISql } from 'postgres'
import { Problem } from '../core/problem'
import { USUAL_PURPOSE, type Purpose } from '../core/render/purpose'
import type { Ms, Share } from '../core/units'
import { problemSentence } from '../core/words/en/problems'
import { inTransaction, sql } from './db'

export const JOB_KINDS = ['prepare', 'render', 'chunks', 'publish'] as const
export type JobKind = (typeof JOB_KINDS)[number]

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
  /** What a render is for, and how much of the video it makes, once that is known. */
  purpose: Purpose
  madeMs: Ms | null
  /** Of which render, and which of its chunks; null for all other jobs. */
  part: { parentId: string; first: number; last: number } | null
}

/** A job in hand: what `claimJob` gave, and all that a worker may change it by. */
export interface ClaimedJob extends Job {
  claim: string
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
  claim: string | null
  purpose: Purpose
  made_ms: number | null
  parent_id: string | null
  first_chunk: number | null
  last_chunk: number | null
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
  purpose: row.purpose,
  madeMs: row.made_ms,
  part:
    row.parent_id === null ? null : { parentId: row.parent_id, first: row.first_chunk ?? 0, last: row.last_chunk ?? 0 },
})

/** The pool, or a transaction of it. */
export type Db = ISql<Record<never, never>>

/** The channel on which every change of a workout's jobs and footage is told; the payload is the workout's id. */
export const CHANGES = 'jivet_changes'
/** The channel on which a cancel is told; the payload is the job's id. */
export const CANCELS = 'jivet_cancels'
/** The channel on which a new job is told; the payload is its kind. */
export const WAITING = 'jivet_waiting'

/** Told when the transaction is committed, if `db` is one. */
export const tell = async (db: Db, channel: string, payload: string): Promise<void> =>
  void (await db`select pg_notify(${channel}, ${payload})`)

export const tellChange = (workoutId: string, db: Db = sql()): Promise<void> => tell(db, CHANGES, workoutId)

/** Attempts that may break off; what stopped orderly is none. */
const MOST_ATTEMPTS = 4

/**
 * Queues a job, in the caller's transaction where there is one. A second job of the kind for the same footage
 * (prepare) or workout (render) is not made while the first lives.
 * @returns its id, or null where one lives already.
 */
export async function addJob(
  db: Db,
  job: { kind: JobKind; workoutId: string; footageId: string | null; purpose?: Purpose },
): Promise<string | null> {
  const { kind, workoutId, footageId, purpose = USUAL_PURPOSE } = job
  const [row] = await db<{ id: string }[]>`
    insert into jobs (kind, workout_id, footage_id, purpose) values (${kind}, ${workoutId}, ${footageId}, ${purpose})
    on conflict do nothing returning id`
  if (!row) return null
  await tell(db, WAITING, kind)
  await tellChange(workoutId, db)
  return row.id
}

export interface Ahead {
  /** Of the workout whose job is next to end. */
  title: string
  first: Pick<Job, 'state' | 'share' | 'startedAt'>
  /** How many come before this one, the first included. */
  count: number
}

/** What a waiting job waits for: those of its kind that are under way, or came before it; null where there are none. */
export async function aheadOf({ id }: Pick<Job, 'id'>): Promise<Ahead | null> {
  const rows = await sql()<(Row & { title: string })[]>`
    select other.*, workouts.title from jobs as own
    join jobs as other on other.kind = own.kind and other.id <> own.id and other.parent_id is null
      and (other.state = 'active'
        or other.state = 'queued' and (other.created_at, other.id) < (own.created_at, own.id))
    join workouts on workouts.id = other.workout_id
    where own.id = ${id} and own.state = 'queued'
    order by other.state = 'active' desc, other.share desc, other.created_at`
  const [first] = rows
  return first ? { title: first.title, first: fromRow(first), count: rows.length } : null
}

/** The newest job of each kind, but for parts of others. */
export async function recentJobs(workoutId: string): Promise<Job[]> {
  const rows = await sql()<Row[]>`
    select distinct on (kind) * from jobs where workout_id = ${workoutId} and parent_id is null
    order by kind, created_at desc, id desc`
  return rows.map(fromRow)
}

/**
 * Takes the oldest waiting job of a kind; of parts, one whose whole has the fewest in hand, so that a long render does
 * not keep a short one waiting.
 * @param makers what a part may have to be made by.
 * @returns null where none waits.
 */
export async function claimJob(kind: JobKind, makers: readonly string[] = []): Promise<ClaimedJob | null> {
  return inTransaction(async (tx) => {
    const [row] = await tx<(Row & { claim: string })[]>`
      update jobs set state = 'active', claim = gen_random_uuid(), attempts = attempts + 1, beats = 0, share = 0,
        started_at = now()
      where id = (
        select id from jobs as waiting
        where state = 'queued' and kind = ${kind} and (parent_id is null or program = any(${makers}))
        order by (select count(*) from jobs as other where other.parent_id = waiting.parent_id and other.state = 'active'),
          created_at, id
        limit 1 for update skip locked)
      returning *`
    if (!row) return null
    await tellChange(row.workout_id, tx)
    return { ...fromRow(row), claim: row.claim }
  })
}

/** What an attempt has to do next: go on, stop because it was asked to, or stop because others have the job now. */
export type Verdict = 'go-on' | 'cancel' | 'lost'

/** A sign of life, with how much is done. */
export async function beat(job: ClaimedJob, share: Share): Promise<Verdict> {
  const [row] = await sql()<{ cancel_asked: boolean }[]>`
    update jobs set share = ${share}, beats = beats + 1
    where id = ${job.id} and claim = ${job.claim} and state = 'active' returning cancel_asked`
  if (!row) return 'lost'
  await tellChange(job.workoutId)
  return row.cancel_asked ? 'cancel' : 'go-on'
}

/**
 * Ends a job as done; what came of it is written in the same transaction.
 * @throws Problem `cancelled` where a cancel came before, `claim-lost` where others have the job: then nothing is
 * written.
 */
export async function finishJob(job: ClaimedJob, write: (tx: Db) => Promise<void> = async () => {}): Promise<void> {
  await inTransaction(async (tx) => {
    const [row] = await tx<{ cancel_asked: boolean }[]>`
      select cancel_asked from jobs where id = ${job.id} and claim = ${job.claim} and state = 'active' for update`
    if (!row) throw new Problem({ code: 'claim-lost' })
    if (row.cancel_asked) throw new Problem({ code: 'cancelled' })
    await write(tx)
    await tx`update jobs set state = 'done', claim = null, problem = null, share = 1, ended_at = now() where id = ${job.id}`
    await tellChange(job.workoutId, tx)
  })
}

/** Ends a job without a result, and with it the waiting of its footage. Who has lost the claim changes nothing. */
export async function endJob(
  job: ClaimedJob,
  state: 'failed' | 'cancelled',
  problem: string | null = null,
): Promise<void> {
  await inTransaction(async (tx) => {
    const rows = await tx<Row[]>`
      update jobs set state = ${state}, problem = ${problem}, claim = null, ended_at = now()
      where id = ${job.id} and claim = ${job.claim} and state = 'active' returning *`
    await settle(tx, rows)
  })
}

/**
 * Puts a job back, to be taken up again.
 * @param brokeOff whether this was an attempt: after `MOST_ATTEMPTS` of them it fails. An orderly stop is none.
 */
export async function releaseJob(job: ClaimedJob, brokeOff: boolean): Promise<void> {
  await inTransaction((tx) => putBack(tx, { ...job, beats: null }, brokeOff))
}

interface Held {
  id: string
  claim: string
  /** Only while it has not beaten since; null: in any case. */
  beats: string | null
}

async function putBack(tx: Db, { id, claim, beats }: Held, brokeOff: boolean): Promise<void> {
  const often = brokeOff ? tx`attempts >= ${MOST_ATTEMPTS}` : tx`false`
  const rows = await tx<Row[]>`
    update jobs set claim = null, share = 0,
      attempts = attempts - ${brokeOff ? 0 : 1},
      state = case when cancel_asked then 'cancelled' when ${often} then 'failed' else 'queued' end,
      problem = case when ${often} and not cancel_asked then ${problemSentence({ code: 'broke-off-often' })} end,
      ended_at = case when cancel_asked or ${often} then now() end
    where id = ${id} and claim = ${claim} and state = 'active' ${beats === null ? tx`` : tx`and beats = ${beats}`}
    returning *`
  await settle(tx, rows)
  for (const row of rows) if (row.state === 'queued') await tell(tx, WAITING, row.kind)
}

/** Footage never waits for a job that has ended without a result. */
async function settle(tx: Db, ended: readonly Row[]): Promise<void> {
  for (const { kind, state, problem, footage_id, workout_id } of ended) {
    const without = state === 'failed' || state === 'cancelled'
    if (kind === 'prepare' && without)
      await tx`
        update footage set state = 'failed', problem = ${problem ?? problemSentence({ code: 'prepare-cancelled' })}
        where id = ${footage_id} and state = 'preparing'`
    await tellChange(workout_id, tx)
  }
}

/**
 * Asks for a stop: a queued job ends at once, an active one when its worker hears of it, at the latest at its next
 * beat.
 * @throws Problem `not-found`.
 */
export async function cancelJob(id: string): Promise<void> {
  await inTransaction(async (tx) => {
    const rows = await tx<Row[]>`
      update jobs set cancel_asked = cancel_asked or state in ('queued', 'active'),
        state = case when state = 'queued' then 'cancelled' else state end,
        ended_at = case when state = 'queued' then now() else ended_at end
      where id = ${id} returning *`
    if (!rows.length) throw new Problem({ code: 'not-found', what: 'job' })
    await settle(tx, rows)
    await tell(tx, CANCELS, id)
  })
}

/** An attempt whose beats have stood still for this long, by the watcher's own clock, has lost its worker. */
const STILL_MS: Ms = 12_000

/** Watches the beats of active jobs and puts back those whose worker has died, each once. */
export class Watch {
  private readonly seen = new Map<string, { beats: string; sinceMs: Ms }>()

  /**
   * To be called every few seconds.
   * @param nowMs of a clock that never jumps.
   * @returns ids of the jobs that were put back or ended.
   */
  async look(nowMs: Ms): Promise<string[]> {
    const active = await sql()<{ id: string; claim: string; beats: string }[]>`
      select id, claim, beats from jobs where state = 'active'`.catch((error: unknown) => {
      // While the database was away nobody could beat.
      this.seen.clear()
      throw error
    })
    const claims = new Set(active.map(({ claim }) => claim))
    for (const claim of this.seen.keys()) if (!claims.has(claim)) this.seen.delete(claim)
    const still = active.filter(({ claim, beats }) => {
      const known = this.seen.get(claim)
      if (known?.beats === beats) return nowMs - known.sinceMs >= STILL_MS
      this.seen.set(claim, { beats, sinceMs: nowMs })
      return false
    })
    for (const held of still) await inTransaction((tx) => putBack(tx, held, true))
    return still.map(({ id }) => id)
  }
}
