// Files by content hash in the data folder: written under a temporary name, flushed, renamed. Never reached by a user's
// path.
import { randomUUID } from 'node:crypto'
import { access, mkdir, open, readdir, rename, rm, stat, statfs, unlink, utimes, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { Problem } from '../core/problem'
import { ChunkStore } from '../engine/chunkStore'
import { contentHash } from '../engine/contentHash'
import { bucket } from './bucket'
import { readSettings } from './settings'

const root = (): string => readSettings().JIVET_HOME
export const uploadsFolder = (): string => join(root(), 'uploads')
export const storeFolder = (): string => join(root(), 'store')
/** What was swept lies here for a while, and can be taken back by its name. */
export const trashFolder = (): string => join(root(), 'trash')
export const scratchFolder = (): string => join(root(), 'scratch')

/** Rendered chunks, which can be made again at any time. */
export const chunkStore = (): ChunkStore =>
  new ChunkStore(join(root(), 'chunks'), readSettings().JIVET_CHUNKS_GB * 1e9, bucket())

/** A file's name in the data folder and in the bucket. */
export const nameInStore = (hash: string): string => `${STORE}${hash.slice(0, 2)}/${hash}`
export const STORE = 'store/'

/** Folders of the store that hold files; none where there is no store yet. */
export async function shelves(): Promise<string[]> {
  const entries = await readdir(storeFolder(), { withFileTypes: true }).catch(() => [])
  return entries.filter((entry) => entry.isDirectory()).map(({ name }) => join(storeFolder(), name))
}

/**
 * Where a file lies, or would lie, on this machine.
 * @param hash 64 hexadecimal digits; anything else is a defect, as hashes come from our own database.
 */
export function storedPath(hash: string): string {
  if (!/^[0-9a-f]{64}$/.test(hash)) throw new Problem({ code: 'not-found', what: 'file' })
  return join(root(), nameInStore(hash))
}

const onTheirWay = new Map<string, Promise<unknown>>()

/**
 * A file of the store to be read on this machine, brought here from the bucket where it has to be.
 * @returns its path; whether it is there, whoever opens it sees.
 * @throws Problem `store-away`, `cancelled`.
 */
export async function storedFile(hash: string, signal?: AbortSignal): Promise<string> {
  const path = storedPath(hash)
  const far = bucket()
  if (!far) return path
  const now = new Date()
  const isHere = await utimes(path, now, now).then(
    () => true,
    () => false,
  )
  if (isHere) return path
  const brought = onTheirWay.get(hash) ?? far.fetch(nameInStore(hash), path).finally(() => onTheirWay.delete(hash))
  onTheirWay.set(hash, brought)
  // Who no longer waits for it leaves it to others.
  await (signal ? Promise.race([brought, aborted(signal)]) : brought)
  return path
}

const aborted = (signal: AbortSignal): Promise<never> =>
  new Promise((_, reject) => {
    const end = (): void => reject(new Problem({ code: 'cancelled' }))
    if (signal.aborted) end()
    signal.addEventListener('abort', end, { once: true })
  })

/** A fresh path on the store's own disk, for work in progress. */
async function scratchPath(): Promise<string> {
  await mkdir(scratchFolder(), { recursive: true })
  return join(scratchFolder(), randomUUID())
}

/** Runs an attempt's work with a folder of its own on the store's disk, empty at first and gone at the end. */
export async function withAttemptFolder<T>(attempt: string, work: (folder: string) => Promise<T>): Promise<T> {
  const folder = join(scratchFolder(), attempt)
  await mkdir(folder, { recursive: true })
  try {
    return await work(folder)
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** Folders of requests are called so; they have no claim that says whether somebody still works there. */
export const REQUEST_FOLDER = 'request-'

/** The same for what is made while somebody waits for the answer. */
export const withRequestFolder = <T>(work: (folder: string) => Promise<T>): Promise<T> =>
  withAttemptFolder(`${REQUEST_FOLDER}${randomUUID()}`, work)

/**
 * Whether there is a file.
 * @throws Problem `store-away` where the disk does not say: what cannot be looked at is not gone.
 */
export async function isThere(path: string): Promise<boolean> {
  try {
    await access(path)
    return true
  } catch (error) {
    const { code = '', message } = error as NodeJS.ErrnoException
    if (code === 'ENOENT' || code === 'ENOTDIR') return false
    throw new Problem({ code: 'store-away', reason: message })
  }
}
export const isStored = async (hash: string): Promise<boolean> =>
  (await isThere(storedPath(hash))) || ((await bucket()?.has(nameInStore(hash))) ?? false)

/**
 * Moves a finished file into the store. A file that is there already is not kept twice.
 * @param passing for what nobody asks for again; it is kept on this machine only.
 * @returns its hash.
 */
export async function keepFile(path: string, { passing = false } = {}): Promise<string> {
  const hash = await contentHash(path)
  await moveIntoStore(path, hash, { passing })
  return hash
}

/** Moves a file whose hash is known; file and name are on the disk, and in the bucket, when this returns. */
export async function moveIntoStore(path: string, hash: string, { passing = false } = {}): Promise<void> {
  const to = storedPath(hash)
  // Before it has its name here: who finds it here need not ask there.
  if (!passing) await bucket()?.put(nameInStore(hash), path)
  // A folder that is new is a name in the one above it.
  if (await mkdir(dirname(to), { recursive: true })) for (const above of [storeFolder(), root()]) await flush(above)
  await flush(path)
  await rename(path, to)
  await flush(dirname(to))
}

export async function keepBytes(bytes: Uint8Array): Promise<string> {
  const path = await scratchPath()
  await writeFile(path, bytes)
  return keepFile(path)
}

export async function storedSize(hash: string): Promise<number> {
  return (await stat(storedPath(hash))).size
}

export async function discard(path: string): Promise<void> {
  await unlink(path).catch(() => {})
}

/** Brings a file, or the names in a folder, to the disk. */
export async function flush(path: string): Promise<void> {
  const file = await open(path, 'r')
  try {
    await file.sync()
  } finally {
    await file.close()
  }
}

/**
 * What a connection says while the database is away: Postgres.js (which takes a transaction whose connection was lost
 * for one that nobody began), the system, PostgreSQL (classes 57P, 08).
 */
const DATABASE_AWAY = /^(CONNECTION_|CONNECT_TIMEOUT|UNSAFE_TRANSACTION|ECONNREFUSED|ECONNRESET|EPIPE|57P0|08)/

/**
 * A full disk, told by the system or by PostgreSQL (53100), is the user's to mend, and a database that is away comes
 * back; anything else stays what it is.
 */
export function knownProblem(error: unknown): unknown {
  const code = String((error as { code?: unknown } | null)?.code ?? '')
  if (code === 'ENOSPC' || code === '53100') return new Problem({ code: 'disk-full' })
  return DATABASE_AWAY.test(code) ? new Problem({ code: 'database-away' }) : error
}

/** Bytes that may still be written where the data folder is. */
export async function freeBytes(): Promise<number> {
  const { bavail, bsize } = await statfs(root())
  return bavail * bsize
}
