// Whether database, data folder and bucket belong together: each carries the same id. A store beside a database that
// knows nothing of it is another's, and nothing in it is swept or said to be missing.
import { randomUUID } from 'node:crypto'
import { mkdir, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { z } from 'zod'
import { Problem } from '../core/problem'
import { sql } from './db'
import { bucket } from './bucket'
import { flush, scratchFolder, shelves, storeFolder } from './store'

/** The marker's name, in the store's folder and in the bucket. */
export const MARKER = '.jivet-store'
const idSchema = z.uuid()

const markerPath = (): string => join(storeFolder(), MARKER)

/** @returns null where there is none. @throws Problem `store-away` where it cannot be read. */
async function idInFolder(): Promise<string | null> {
  try {
    return idSchema.catch('').parse((await readFile(markerPath(), 'utf8')).trim())
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null
    throw new Problem({ code: 'store-away', reason: (error as Error).message })
  }
}

async function idInBucket(): Promise<string | null> {
  const far = bucket()
  if (!far) return null
  const brought = join(scratchFolder(), `${MARKER}-${randomUUID()}`)
  try {
    return (await far.fetch(MARKER, brought)) ? (await readFile(brought, 'utf8')).trim() : null
  } finally {
    await rm(brought, { force: true })
  }
}

/**
 * Marks folder and bucket where they have no mark yet and are this database's: it names what they hold.
 * @throws Problem `store-of-another`, where one of them belongs to another database; `store-away`.
 */
export async function agreeOnStore(): Promise<void> {
  const [row] = await sql()<{ id: string }[]>`select id from store_identity`
  if (!row) throw new Error('the database has no id')
  const inFolder = await idInFolder()
  if (inFolder === null) await markFolder(row.id)
  else if (inFolder !== row.id) throw new Problem({ code: 'store-of-another', where: 'folder', path: storeFolder() })
  const far = bucket()
  if (!far) return
  const there = await idInBucket()
  if (there === null) await far.put(MARKER, markerPath())
  else if (there !== row.id) throw new Problem({ code: 'store-of-another', where: 'bucket', path: MARKER })
}

async function markFolder(id: string): Promise<void> {
  await mkdir(storeFolder(), { recursive: true })
  if (!(await isMostlyNamed())) throw new Problem({ code: 'store-of-another', where: 'folder', path: storeFolder() })
  const made = `${markerPath()}.${randomUUID()}`
  await writeFile(made, `${id}\n`, { flush: true })
  await rename(made, markerPath())
  await flush(storeFolder())
}

/** Of a store that an older Jivet left unmarked, this share is named by its database at least. */
const LEAST_NAMED = 1 / 3

async function isMostlyNamed(): Promise<boolean> {
  const named = await namedHashes()
  let [files, known] = [0, 0]
  for (const shelf of await shelves()) {
    const hashes = await readdir(shelf)
    files += hashes.length
    known += hashes.filter((hash) => named.has(hash)).length
  }
  return known >= files * LEAST_NAMED
}

/** Files that some row names. */
export async function namedHashes(): Promise<Set<string>> {
  const rows = await sql()<{ hash: string }[]>`
    select hash from footage union select proxy_hash from footage union select peaks_hash from footage
    union select video_hash from packs union select hash from recordings
    union select hash from music`
  return new Set(rows.flatMap(({ hash }) => hash ?? []))
}
