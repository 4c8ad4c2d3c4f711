// Saves a setting of a workout. A page says what it had before, so that what another page has saved since is kept, too.
import { z } from 'zod'
import { mergeThree, sameJson } from '../core/workout/mergeThree'
import { SETTINGS, type SettingName, type Settings } from '../core/workout/settings'
import { Problem } from '../core/problem'
import { inTransaction, sql } from './db'
import { issueToProblem } from '../core/read/workoutFile'
import { idFrom, readBody, route } from './http'

/**
 * @param base what the page had before it changed anything; without it the setting is as it is sent.
 * @returns the setting as it is kept now, with what others had changed meanwhile.
 * @throws Problem `not-found`.
 */
export async function saveSetting<Name extends SettingName>(
  id: string,
  name: Name,
  now: Settings[Name],
  base?: Settings[Name],
): Promise<Settings[Name]> {
  const schema = SETTINGS[name] as unknown as z.ZodType<Settings[Name]>
  const column = sql()(name as string)
  return inTransaction(async (tx) => {
    const [row] = await tx<{ kept: unknown }[]>`
      select ${column} as kept from workouts where id = ${id} and removed_at is null for update`
    if (!row) throw new Problem({ code: 'not-found', what: 'workout' })
    const theirs = schema.safeParse(row.kept)
    const both = base !== undefined && theirs.success ? schema.safeParse(mergeThree(base, now, theirs.data)) : null
    // What does not fit together is as whoever came last wants it.
    const kept = both?.success ? both.data : now
    if (!theirs.success || !sameJson(kept, theirs.data))
      await tx`update workouts set ${column} = ${tx.json(kept as never)} where id = ${id}`
    return kept
  })
}

/** The handler of a setting's route: takes the setting whole, or what it was and what it is now. */
export function settingRoute<Name extends SettingName>(name: Name): ReturnType<typeof route<{ id: string }>> {
  const schema = SETTINGS[name] as unknown as z.ZodType<Settings[Name]>
  const change = z.strictObject({ base: schema, now: schema })
  const whole = schema.transform((now) => ({ base: undefined, now }))
  return route<{ id: string }>(async (request, { id }) => {
    const body = await readBody(request, z.looseObject({}))
    const isChange = 'base' in body && 'now' in body
    const read = (isChange ? change : whole).safeParse(body)
    if (!read.success) throw issueToProblem(read.error, 'request')
    return Response.json(await saveSetting(idFrom(id), name, read.data.now, read.data.base))
  })
}
