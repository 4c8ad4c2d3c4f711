// Matches files and rows, at every start and every hour: whatever was killed in between, finished bytes become footage,
// and no footage waits for a job that is not there.
import { readdir, readFile, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { z } from 'zod'
import { problemSentence } from '../core/words/en/problems'
import { sql } from './db'
import { addFootage, shownName } from './footage'
import { addJob } from './jobs'
import { isStored, uploadsFolder } from './store'

/** What the upload server notes beside each upload. */
const uploadNoteSchema = z.object({
  size: z.number().int().min(1),
  metadata: z.object({ workoutId: z.uuid(), filename: z.string().catch('') }),
})

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
  const names = await readdir(uploadsFolder()).catch(() => [])
  for (const note of names.filter((name) => name.endsWith('.json'))) {
    const upload = note.slice(0, -'.json'.length)
    const finished = await finishedUpload(upload)
    if (!finished) continue
    const [known] = await sql()`
      select exists (select 1 from footage where upload = ${upload}) as here,
        exists (select 1 from workouts where id = ${finished.workoutId}) as wanted`
    if (known?.here || !known?.wanted) continue
    adopted.push(await addFootage(finished))
  }
  return adopted
}

/** @returns null for an upload that is not complete, or whose note cannot be read. */
async function finishedUpload(upload: string): Promise<Parameters<typeof addFootage>[0] | null> {
  const path = join(uploadsFolder(), upload)
  const [text, bytes] = await Promise.all([
    readFile(`${path}.json`, 'utf8').catch(() => ''),
    stat(path).then(
      ({ size }) => size,
      () => 0,
    ),
  ])
  const note = uploadNoteSchema.safeParse(parsed(text)).data
  if (note?.size !== bytes) return null
  return { workoutId: note.metadata.workoutId, name: shownName(note.metadata.filename), bytes, upload }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
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
