// What somebody removes for good: only what is out of use already. Its files are named by nothing then, and leave the
// store by the sweep, over the trash.
import { Problem } from '../core/problem'
import { inTransaction, sql } from './db'
import { tellChange } from './jobs'
import { lockWorkoutOf } from './reel'

/** With its ties and all that was heard in it. @throws Problem `not-found`, or `in-use` where it was not put aside. */
export async function removeFootage(id: string): Promise<void> {
  await inTransaction(async (tx) => {
    await lockWorkoutOf(id, tx)
    const [row] = await tx<{ workout_id: string; is_aside: boolean }[]>`
      select workout_id, put_aside_at is not null as is_aside from footage where id = ${id} for update`
    if (!row) throw new Problem({ code: 'not-found', what: 'footage' })
    if (!row.is_aside) throw new Problem({ code: 'in-use' })
    await tx`delete from footage where id = ${id}`
    await tellChange(row.workout_id, tx)
  })
}

/** With its footage, ties, videos and sessions. @throws Problem `not-found`, or `in-use` where it is on the shelf. */
export async function removeWorkout(id: string): Promise<void> {
  const removed = await sql()`delete from workouts where id = ${id} and removed_at is not null returning id`
  if (removed.length) return
  const [still] = await sql()`select 1 from workouts where id = ${id}`
  throw new Problem(still ? { code: 'in-use' } : { code: 'not-found', what: 'workout' })
}

/** @throws Problem `not-found`, or `in-use` where it was published. */
export async function removePack(id: string): Promise<void> {
  await inTransaction(async (tx) => {
    const [row] = await tx<{ workout_id: string }[]>`select workout_id from packs where id = ${id} for update`
    if (!row) throw new Problem({ code: 'not-found', what: 'video' })
    const removed = await tx`
      delete from packs where id = ${id} and not exists (select 1 from publications where pack_id = ${id}) returning id`
    if (!removed.length) throw new Problem({ code: 'in-use' })
    await tellChange(row.workout_id, tx)
  })
}
