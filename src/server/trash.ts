// What was swept out of the store: kept for a while beside it, taken back by its name, and asked for once more before
// it leaves for good.
import { mkdir, readdir, rename, rm, stat, utimes } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { DAY, type Ms } from '../core/units'
import { flush, storedPath, trashFolder } from './store'

export const TRASH_KEPT_MS: Ms = 14 * DAY

/** Moves a file of the store to the trash, from an instant on. @param nowMs since the epoch. */
export async function intoTrash(path: string, hash: string, nowMs: Ms): Promise<void> {
  await mkdir(trashFolder(), { recursive: true })
  const to = join(trashFolder(), hash)
  await rename(path, to)
  await utimes(to, nowMs / 1000, nowMs / 1000)
  await flush(trashFolder())
}

/** Takes a file back that is named after all. @returns whether it was there. */
export async function outOfTrash(hash: string): Promise<boolean> {
  const to = storedPath(hash)
  try {
    await mkdir(dirname(to), { recursive: true })
    await rename(join(trashFolder(), hash), to)
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return false
    throw error
  }
  await flush(dirname(to))
  return true
}

/** Takes back what is named again, and lets go of what has lain its time. */
export async function emptyTrash(named: ReadonlySet<string>, nowMs: Ms): Promise<void> {
  for (const hash of await readdir(trashFolder()).catch(() => [])) {
    if (named.has(hash)) {
      await outOfTrash(hash)
      continue
    }
    const path = join(trashFolder(), hash)
    const facts = await stat(path).catch(() => null)
    if (facts && facts.mtimeMs < nowMs - TRASH_KEPT_MS) await rm(path, { force: true })
  }
}
