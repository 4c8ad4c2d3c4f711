// Matches files and rows, at every start and every hour: whatever was killed in between, finished bytes become footage,
// and no footage waits for a job that is not there.
import { sql } from './db'
import { addFootage, shownName } from './footage'
import { addJob } from './jobs'
import { isStored } from './store'
import { agreeOnStore } from './storeIdentity'
import { outOfTrash } from './trash'
import { uploadNotes } from './uploadNotes'

export interface Matched {
  /** Uploads that were complete and had no footage. */
  adopted: string[]
  /** Footage that waited for nothing. */
  queued: string[]
  /** Ready footage whose file is missing since this look, and whose file is back. */
  missing: string[]
  back: string[]
}

/** @throws Problem `store-of-another`, `store-away`; what was asked of the store is as it was then. */
export async function matchRecords(): Promise<Matched> {
  const adopted = await adoptUploads()
  const stranded = await sql()<{ id: string; workout_id: string }[]>`
    select id, workout_id from footage where state = 'preparing' and not exists
      (select 1 from jobs where footage_id = footage.id and kind = 'prepare' and state in ('queued', 'active'))`
  for (const { id, workout_id } of stranded)
    await addJob(sql(), { kind: 'prepare', workoutId: workout_id, footageId: id })
  return { adopted, queued: stranded.map(({ id }) => id), ...(await markMissing()) }
}

async function adoptUploads(): Promise<string[]> {
  const adopted: string[] = []
  for (const { upload, size, there, workoutId, filename, replaces } of await uploadNotes()) {
    if (there !== size) continue
    const [known] = await sql()`
      select exists (select 1 from footage where upload = ${upload}) as here,
        exists (select 1 from workouts where id = ${workoutId}) as wanted`
    if (known?.here || !known?.wanted) continue
    adopted.push(await addFootage({ workoutId, name: shownName(filename), bytes: size, upload, replaces }))
  }
  return adopted
}

/**
 * Notes whose file is missing, beside a store that can be read and is this database's own. Nothing else of the footage
 * changes: it is as it was once its file is back.
 */
async function markMissing(): Promise<Pick<Matched, 'missing' | 'back'>> {
  await agreeOnStore()
  const rows = await sql()<{ id: string; hash: string; missing: boolean }[]>`
    select id, hash, missing_at is not null as missing from footage where state = 'ready' and hash is not null`
  const [missing, back]: [string[], string[]] = [[], []]
  for (const { id, hash, missing: was } of rows) {
    const there = (await isStored(hash)) || (await outOfTrash(hash))
    if (!there && !was) missing.push(id)
    if (there && was) back.push(id)
  }
  // The marker once more: a disk that went away meanwhile has nothing on it.
  if (missing.length) await agreeOnStore()
  await sql()`update footage set missing_at = now() where id = any(${missing}) and state = 'ready'`
  await sql()`update footage set missing_at = null where id = any(${back})`
  return { missing, back }
}
