// What the upload server notes beside each upload, read in one place.
import { readdir, readFile, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { z } from 'zod'
import { uploadsFolder } from './store'

/** Whose place an upload takes, as the page says it; null where it says nothing that can be read. */
export const replacesSchema = z.uuid().nullable().catch(null)

const noteSchema = z.object({
  size: z.number().int().min(1),
  metadata: z.object({ workoutId: z.uuid(), filename: z.string().catch(''), replaces: replacesSchema }),
})

export interface UploadNote {
  /** The name of its file in the folder of uploads. */
  upload: string
  /** Bytes that it will have, and bytes that are there. */
  size: number
  there: number
  workoutId: string
  /** As the browser named it. */
  filename: string
  /** The footage whose place it takes. */
  replaces: string | null
}

/** Uploads whose note and file can be read. */
export async function uploadNotes(): Promise<UploadNote[]> {
  const names = await readdir(uploadsFolder()).catch(() => [])
  const read = await Promise.allSettled(names.filter((name) => name.endsWith('.json')).map(readNote))
  return read.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []))
}

/** The note of one upload; null where it cannot be read. */
export const noteOf = (upload: string): Promise<UploadNote | null> => readNote(`${upload}.json`).catch(() => null)

async function readNote(name: string): Promise<UploadNote> {
  const upload = name.slice(0, -'.json'.length)
  const path = join(uploadsFolder(), upload)
  const [text, facts] = await Promise.all([readFile(`${path}.json`, 'utf8'), stat(path)])
  const { size, metadata } = noteSchema.parse(JSON.parse(text))
  return { upload, size, there: facts.size, ...metadata }
}
