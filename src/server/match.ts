// Matches files and rows, at every start and every hour: whatever was killed in between, finished bytes become footage,
// and no footage waits for a job that is not there.
import { problemSentence } from '../core/words/en/problems'
import { sql } from './db'
import { addFootage, shownName } from './footage'
import { addJob } from './jobs'
import { isStored } from './store'
import { uploadNotes } from './uploadNotes'

export interface Matched {
  /** Uploads that were complete and had no footage. */
  adopted: string[]
  /** Footage that waited for nothing. */
  queued: string[]
  /** Ready footage whose file is gone. */
  lost: string[]
}

export async function matchRecords(): Promise<Matched> {
  const adopted = await adoptUploads()
  const stranded = await sql()<{ id: string; workout_id: string }[]>`
    select id, workout_id from footage where state = 'preparing' and not exists
      (select 1 from jobs where footage_id = footage.id and kind = 'prepare' and state in ('queued', 'active'))`
  for (const { id, workout_id } of stranded)
    await addJob(sql(), { kind: 'prepare', workoutId: workout_id, footageId: id })
  return { adopted, queued: stranded.map(({ id }) => id), lost: await markLost() }
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

async function markLost(): Promise<string[]> {
  const rows = await sql()<{ id: string; hash: string }[]>`
    select id, hash from footage where state = 'ready' and hash is not null`
  const lost: string[] = []
  for (const { id, hash } of rows) if (!(await isStored(hash))) lost.push(id)
  if (lost.length)
    await sql()`
      update footage set state = 'failed', problem = ${problemSentence({ code: 'stored-file-gone' })}
      where id = any(${lost}) and state = 'ready'`
  return lost
}
