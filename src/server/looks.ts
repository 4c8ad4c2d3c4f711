// Looks that were given a name, for every workout.
import { lookSchema, type LookWish, type NamedLook } from '../core/look/looks/family'
import { sql } from './db'

/** By name. One that cannot be read any more is left out. */
export async function namedLooks(): Promise<NamedLook[]> {
  const rows = await sql()<{ name: string; look: unknown }[]>`select name, look from looks order by lower(name)`
  return rows.flatMap(({ name, look }) => {
    const read = lookSchema.safeParse(look)
    return read.success ? [{ name, look: read.data }] : []
  })
}

/** In place of what had that name. */
export async function keepLook(name: string, look: LookWish): Promise<void> {
  await sql()`
    insert into looks (name, look) values (${name}, ${sql().json(look)})
    on conflict (name) do update set look = excluded.look, changed_at = now()`
}

export async function forgetLook(name: string): Promise<void> {
  await sql()`delete from looks where name = ${name}`
}
