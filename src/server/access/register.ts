// Who is in, in the database: each pass has a row, and a pass whose row is ended opens nothing any more.
import { HOUR, SECOND, type Ms } from '../../core/units'
import { sql } from '../db'
import type { Pass } from './entry'
import { LASTS } from './passes'

/** As it is listed for the owner. */
export interface PassEntry {
  id: string
  kind: Pass['kind']
  name: string
  /** Of a device: whose floor it runs. */
  workoutTitle: string | null
  seenAt: Date
}

/** The longest name that a pass can have. */
export const MOST_NAME = 60

/**
 * @param workoutId whose floor a device is paired to; null for the owner.
 * @param name what it is called, until somebody renames it.
 */
export async function beginPass(workoutId: string | null, name: string): Promise<Pass> {
  const kind = workoutId === null ? 'owner' : 'device'
  const [row] = await sql()<{ id: string }[]>`
    insert into passes (kind, workout_id, name) values (${kind}, ${workoutId}, ${name.slice(0, MOST_NAME)})
    returning id`
  if (!row) throw new Error('an insert gave no row')
  return workoutId === null ? { kind: 'owner', id: row.id } : { kind: 'device', id: row.id, workoutId }
}

/** When each pass was last found to be good, on this process's clock: one map for the gate and the routes. */
const kept = globalThis as typeof globalThis & { jivetGoodPasses?: Map<string, Ms> }
const goodPasses = (): Map<string, Ms> => (kept.jivetGoodPasses ??= new Map())
const FOUND_FOR: Ms = 30 * SECOND

/** Whether a pass opens anything still. Asks the database twice a minute at most, and notes that it was seen. */
export async function isGood({ id }: Pass): Promise<boolean> {
  const [found, now] = [goodPasses(), performance.now()]
  if ((found.get(id) ?? -Infinity) > now - FOUND_FOR) return true
  const [row] = await sql()`update passes set seen_at = now() where id = ${id} and ended_at is null returning id`
  if (!row) return false
  for (const [one, at] of found) if (at <= now - FOUND_FOR) found.delete(one)
  found.set(id, now)
  return true
}

/** @returns false where there is no such pass, or it has ended. */
export async function endPass(id: string): Promise<boolean> {
  goodPasses().delete(id)
  const [row] = await sql()`update passes set ended_at = now() where id = ${id} and ended_at is null returning id`
  return row !== undefined
}

/** @returns false where there is no such pass. */
export async function renamePass(id: string, name: string): Promise<boolean> {
  const [row] = await sql()`update passes set name = ${name} where id = ${id} and ended_at is null returning id`
  return row !== undefined
}

/** All that open something still, the last seen first. Drops the rows of those that have run out. */
export async function listPasses(): Promise<PassEntry[]> {
  for (const kind of ['owner', 'device'] as const)
    await sql()`delete from passes where kind = ${kind} and began_at < now() - make_interval(hours => ${LASTS[kind] / HOUR})`
  const rows = await sql()<{ id: string; kind: Pass['kind']; name: string; title: string | null; seen_at: Date }[]>`
    select passes.id, kind, name, seen_at, workouts.title from passes left join workouts on workouts.id = workout_id
    where ended_at is null order by seen_at desc`
  return rows.map(({ id, kind, name, title, seen_at }) => ({ id, kind, name, workoutTitle: title, seenAt: seen_at }))
}

const SYSTEMS: readonly [RegExp, string][] = [
  [/iPad/, 'iPad'],
  [/iPhone/, 'iPhone'],
  [/Android.*Mobile/, 'Android phone'],
  [/Android/, 'Android tablet'],
  [/Windows/, 'Windows computer'],
  [/Macintosh/, 'Mac'],
  [/CrOS|Linux/, 'Linux computer'],
]

/** What a browser that says this of itself is called at first. */
export const deviceName = (userAgent: string): string =>
  SYSTEMS.find(([pattern]) => pattern.test(userAgent))?.[1] ?? 'Unknown device'
