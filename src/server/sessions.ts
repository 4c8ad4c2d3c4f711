// Sessions run on the floor, in the database: opened with the plan as it is, told line by line as they happen, ended.
// A line is known again by its key, so that whoever is not sure that it arrived sends it once more.
import { isOfPlan } from '../core/align/logged'
import { floorEventSchema, type FloorEvent } from '../core/floor/events'
import { performanceOf, type FloorLog } from '../core/floor/log'
import { Problem } from '../core/problem'
import { scoreSchema, type Score } from '../core/score/score'
import type { Segment } from '../core/score/segment'
import type { ChirpVoice } from '../core/sound/chirp'
import { DAY, MINUTE, SECOND, type Ms } from '../core/units'
import { inTransaction, sql } from './db'
import { tellChange } from './jobs'
import { findWorkout } from './workouts'

export interface FloorSession {
  id: string
  workoutId: string
  /** The plan as it is run. */
  score: Score
  rehearsal: boolean
  /** Seconds of the session in one of the wall's. */
  speed: number
  chirps: ChirpVoice | null
  openedAt: Date
  /** Session time at which a page was last heard from. */
  seenMs: Ms
  ended: boolean
}

interface Row {
  id: string
  workout_id: string
  score: unknown
  rehearsal: boolean
  speed: number
  chirps: ChirpVoice | null
  opened_at: Date
  seen_ms: number
  ended_at: Date | null
}

/** What tells the time of a session. */
interface Clocked extends Pick<Row, 'id' | 'speed' | 'seen_ms' | 'ended_at'> {
  /** Since it was opened, and since it was ended (0 where it was not): by the database's clock. */
  since_ms: number
  ended_ms: number
}

const COLUMNS = ['id', 'workout_id', 'score', 'rehearsal', 'speed', 'chirps', 'opened_at', 'seen_ms', 'ended_at']

const fromRow = (row: Row): FloorSession => ({
  id: row.id,
  workoutId: row.workout_id,
  score: scoreSchema.parse(row.score),
  rehearsal: row.rehearsal,
  speed: row.speed,
  chirps: row.chirps,
  openedAt: row.opened_at,
  seenMs: row.seen_ms,
  ended: row.ended_at !== null,
})

export type SessionWishes = Pick<FloorSession, 'rehearsal' | 'speed' | 'chirps'>

/**
 * Opens a session with the plan as it is now.
 * @throws Problem `session-under-way` where one stands on the floor already, `not-found`, or `floor-empty`.
 */
export async function openSession(workoutId: string, wishes: SessionWishes): Promise<string> {
  const { score, version } = await findWorkout(workoutId)
  if (!score.sections.length) throw new Problem({ code: 'floor-empty' })
  const { rehearsal, speed, chirps } = wishes
  const [row] = await sql()<{ id: string }[]>`
    insert into sessions (workout_id, score, score_revision, rehearsal, speed, chirps)
    values (${workoutId}, ${sql().json(score as never)}, ${version.revision}, ${rehearsal}, ${speed}, ${chirps})
    on conflict (workout_id) where ended_at is null do nothing returning id`
  if (!row) throw new Problem({ code: 'session-under-way' })
  return row.id
}

/** The session that stands on a workout's floor. */
export async function sessionUnderWay(workoutId: string): Promise<FloorSession | null> {
  const [row] = await sql()<Row[]>`
    select ${sql()(COLUMNS)} from sessions where workout_id = ${workoutId} and ended_at is null`
  return row ? fromRow(row) : null
}

/** @throws Problem `not-found`. */
export async function findSession(id: string): Promise<FloorSession> {
  const [row] = await sql()<Row[]>`select ${sql()(COLUMNS)} from sessions where id = ${id}`
  if (!row) throw new Problem({ code: 'not-found', what: 'session' })
  return fromRow(row)
}

/** What a page is given of a session. */
export type SessionFacts = Pick<FloorSession, 'id' | 'score' | 'rehearsal' | 'speed' | 'chirps'>

export const sessionFacts = ({ id, score, rehearsal, speed, chirps }: FloorSession): SessionFacts => ({
  ...{ id, score, rehearsal, speed, chirps },
})

/** Whose floor a session is on; null where there is no such session. */
export async function workoutOfSession(id: string): Promise<string | null> {
  const [row] = await sql()<{ workout_id: string }[]>`select workout_id from sessions where id = ${id}`
  return row?.workout_id ?? null
}

/** A session that is over, as it is listed. */
export interface SessionEntry {
  id: string
  openedAt: Date
  rehearsal: boolean
  lines: number
}

const MOST_LISTED = 20

/** The newest first. */
export async function sessionsBefore(workoutId: string): Promise<SessionEntry[]> {
  const rows = await sql()<{ id: string; opened_at: Date; rehearsal: boolean; lines: string }[]>`
    select id, opened_at, rehearsal, (select count(*) from session_events where session_id = sessions.id) as lines
    from sessions where workout_id = ${workoutId} and ended_at is not null order by opened_at desc limit ${MOST_LISTED}`
  return rows.map(({ id, opened_at, rehearsal, lines }) => ({
    ...{ id, openedAt: opened_at, rehearsal, lines: Number(lines) },
  }))
}

/** What was told since a line, and what time it is in the session. */
export interface Told {
  events: FloorEvent[]
  /** Number of the last line; to be named when asking again. */
  last: number
  nowMs: Ms
  seenMs: Ms
  ended: boolean
}

interface Telling {
  /** Lines to write down; those that are there already are not written twice. */
  events: readonly FloorEvent[]
  /** Up to when whoever tells has run; null for whoever only looks on. */
  seenMs: Ms | null
  /** The last line that they know of. */
  after: number
}

/** How far the clock of a paired device may be ahead of the server's. */
const AHEAD_MS: Ms = 10 * SECOND
/** How long after a session's end lines of a paired device that were on their way are taken. */
const LATE_MS: Ms = 10 * MINUTE

/**
 * Writes lines down, all or none, and answers with whatever was told since.
 * @throws Problem `not-found`.
 */
export async function tellSession(id: string, { events, seenMs, after }: Telling): Promise<Told> {
  await writeLines(id, events, seenMs)
  return toldSince(id, after)
}

/**
 * As `tellSession`, for a paired device: it moves no clock beyond the server's, and adds nothing to a session that was
 * over ten minutes ago.
 * @throws Problem `not-found`, `session-over`, or `ahead-of-time` for a line of an instant that has not come yet.
 */
export async function tellFromDevice(id: string, { events, seenMs, after }: Telling): Promise<Told> {
  const clocked = await clockedOf(id)
  const mostMs = clockMsOf(clocked) + AHEAD_MS
  if (events.some(({ atMs }) => atMs > mostMs)) throw new Problem({ code: 'ahead-of-time' })
  const isOver = clocked.ended_at !== null && clocked.ended_ms > LATE_MS
  if (isOver && events.length) throw new Problem({ code: 'session-over' })
  if (!isOver) await writeLines(id, events, seenMs === null ? null : Math.min(seenMs, mostMs))
  return toldSince(id, after)
}

async function writeLines(id: string, events: readonly FloorEvent[], seenMs: Ms | null): Promise<void> {
  const ends = events.some(({ kind }) => kind === 'end')
  await inTransaction(async (tx) => {
    const [row] = await tx<{ workout_id: string }[]>`
      update sessions set seen_ms = greatest(seen_ms, ${seenMs ?? 0}::integer),
        ended_at = case when ${ends} then coalesce(ended_at, now()) else ended_at end
      where id = ${id} returning workout_id`
    if (!row) throw new Problem({ code: 'not-found', what: 'session' })
    if (!events.length) return
    await tx`
      insert into session_events (session_id, key, at_ms, event)
      select ${id}, (one ->> 'key')::uuid, (one ->> 'atMs')::integer, one
      from jsonb_array_elements(${tx.json(events as never)}) as one
      on conflict (session_id, key) do nothing`
    await tellChange(row.workout_id, tx)
  })
}

/** @throws Problem `not-found`. */
async function clockedOf(id: string): Promise<Clocked> {
  // Asked every second by every page: the plan stays where it is.
  const [row] = await sql()<Clocked[]>`
    select id, speed, seen_ms, ended_at, (extract(epoch from clock_timestamp() - opened_at) * 1000)::float8 as since_ms,
      coalesce(extract(epoch from clock_timestamp() - ended_at) * 1000, 0)::float8 as ended_ms
    from sessions where id = ${id}`
  if (!row) throw new Problem({ code: 'not-found', what: 'session' })
  return row
}

/** @throws Problem `not-found`. */
export async function toldSince(id: string, after: number): Promise<Told> {
  const row = await clockedOf(id)
  const lines = await sql()<{ number: string; event: unknown }[]>`
    select number, event from session_events where session_id = ${id} and number > ${after} order by number`
  return {
    events: lines.map(({ event }) => floorEventSchema.parse(event)),
    last: Number(lines.at(-1)?.number ?? after),
    nowMs: nowMsOf(row),
    seenMs: row.seen_ms,
    ended: row.ended_at !== null,
  }
}

/** Where each session was when this process first saw it, and on its own clock. */
const kept = globalThis as typeof globalThis & { jivetFloorClocks?: Map<string, { atMs: Ms; onClock: number }> }

/**
 * What this process's clock, which no change of the machine's clock moves, says of a session from when it first saw it.
 */
function clockMsOf({ id, since_ms, speed, seen_ms }: Clocked): Ms {
  const clocks = (kept.jivetFloorClocks ??= new Map())
  const first = clocks.get(id) ?? { atMs: Math.max(since_ms * speed, seen_ms), onClock: performance.now() }
  clocks.set(id, first)
  return Math.min(DAY, Math.round(first.atMs + (performance.now() - first.onClock) * speed))
}

/** What time it is in a session: never before a page was last heard from. */
const nowMsOf = (clocked: Clocked): Ms => Math.max(clocked.seen_ms, clockMsOf(clocked))

/** The record of a session as a file. @throws Problem `not-found`. */
export async function floorLogOf(id: string): Promise<FloorLog> {
  const { score, rehearsal, openedAt } = await findSession(id)
  const { events } = await toldSince(id, 0)
  return { format: 'jivet-floor-log', version: 1, openedAt: openedAt.toISOString(), rehearsal, score, events }
}

/** Whether a session of a workout was run on the floor, and not only rehearsed. */
export async function wasFilmedHere(workoutId: string): Promise<boolean> {
  const [row] = await sql()`
    select 1 from sessions where workout_id = ${workoutId} and ended_at is not null and not rehearsal limit 1`
  return row !== undefined
}

/** The record of the newest session that was filmed, where it has anything of a plan as it is now. */
export async function recordFor(workoutId: string, segments: readonly Segment[]): Promise<FloorLog | null> {
  const [row] = await sql()<{ id: string }[]>`
    select id from sessions where workout_id = ${workoutId} and ended_at is not null and not rehearsal
    order by opened_at desc limit 1`
  if (!row) return null
  const log = await floorLogOf(row.id)
  return isOfPlan(segments, performanceOf(log)) ? log : null
}
