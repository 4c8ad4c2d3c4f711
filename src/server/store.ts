// Files by content hash in the data folder: written under a temporary name, flushed, renamed. Never reached by a user's
// path.
import { createHash, randomUUID } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { mkdir, open, rename, rm, stat, statfs, unlink, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { Problem } from '../core/problem'
import { readSettings } from './settings'

const root = (): string => readSettings().JIVET_HOME
export const uploadsFolder = (): string => join(root(), 'uploads')
const scratchFolder = (): string => join(root(), 'scratch')

/** @param hash 64 hexadecimal digits; anything else is a defect, as hashes come from our own database. */
export function storedPath(hash: string): string {
  if (!/^[0-9a-f]{64}$/.test(hash)) throw new Problem({ code: 'not-found', what: 'file' })
  return join(root(), 'store', hash.slice(0, 2), hash)
}

/** A fresh path on the store's own disk, for work in progress. */
async function scratchPath(): Promise<string> {
  await mkdir(scratchFolder(), { recursive: true })
  return join(scratchFolder(), randomUUID())
}

/**
 * Runs a job's work with a folder of its own on the store's disk, empty at first and gone at the end. The folder is
 * named after the job: what a killed worker left behind is cleared when the job is taken up again.
 */
export async function withJobFolder<T>(jobId: string, work: (folder: string) => Promise<T>): Promise<T> {
  const folder = join(scratchFolder(), jobId)
  await rm(folder, { recursive: true, force: true })
  await mkdir(folder, { recursive: true })
  try {
    return await work(folder)
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** Moves a finished file into the store. @returns its hash. A file that is there already is not kept twice. */
export async function keepFile(path: string): Promise<string> {
  const sum = createHash('sha256')
  await pipeline(createReadStream(path), sum)
  const hash = sum.digest('hex')
  const to = storedPath(hash)
  await mkdir(dirname(to), { recursive: true })
  await flush(path)
  await rename(path, to)
  return hash
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

async function flush(path: string): Promise<void> {
  const file = await open(path, 'r+')
  try {
    await file.sync()
  } finally {
    await file.close()
  }
}

/** A full disk, told by the system or by PostgreSQL (53100), is the user's to mend; anything else stays what it is. */
export function knownProblem(error: unknown): unknown {
  const code = (error as { code?: unknown } | null)?.code
  return code === 'ENOSPC' || code === '53100' ? new Problem({ code: 'disk-full' }) : error
}

/** Bytes that may still be written where the data folder is. */
export async function freeBytes(): Promise<number> {
  const { bavail, bsize } = await statfs(root())
  return bavail * bsize
}
