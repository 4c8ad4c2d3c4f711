// Rendered parts, kept by the keys of all that went into them: what is asked for again is not made again. The folder
// has a limit, and what was not used for the longest time goes first.
import { copyFile, link, mkdir, open, readdir, readFile, rename, rm, stat, utimes, writeFile } from 'node:fs/promises'
import { randomUUID } from 'node:crypto'
import { join } from 'node:path'
import type { Ms } from '../core/units'

/** Parts of a render that goes on are never swept. */
const NEVER_WITHIN_MS: Ms = 3_600_000

export class ChunkStore {
  /** @param mostBytes that are kept, but for what was used within the last hour. */
  constructor(
    private readonly folder: string,
    private readonly mostBytes: number,
  ) {}

  private at(key: string): string {
    return join(/*turbopackIgnore: true*/ this.folder, key)
  }

  /** Whether it is there. */
  async has(key: string): Promise<boolean> {
    return (await stat(this.at(key)).catch(() => null)) !== null
  }

  /** Puts a part where it is needed; it stays there, whatever is swept. @returns whether it was there. */
  async take(key: string, to: string): Promise<boolean> {
    try {
      await linked(this.at(key), to)
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') return false
      throw error
    }
    const now = new Date()
    await utimes(this.at(key), now, now).catch(() => undefined)
    return true
  }

  /** Keeps a finished part, which stays where it is. It is on the disk when this returns. */
  async keep(key: string, path: string): Promise<void> {
    await mkdir(this.folder, { recursive: true })
    const file = await open(path, 'r')
    await file.sync().finally(() => file.close())
    const begun = `${this.at(key)}.${randomUUID()}`
    await linked(path, begun)
    await rename(begun, this.at(key))
  }

  /** What was found out about a part; null where nothing was. */
  async noted(key: string): Promise<unknown> {
    const note = await readFile(`${this.at(key)}${NOTE}`, 'utf8').catch(() => null)
    try {
      return note === null ? null : JSON.parse(note)
    } catch {
      return null
    }
  }

  async note(key: string, note: unknown): Promise<void> {
    const begun = `${this.at(key)}.${randomUUID()}`
    await writeFile(begun, JSON.stringify(note))
    await rename(begun, `${this.at(key)}${NOTE}`)
  }

  /** For parts that turned out to be wrong. */
  async forget(keys: readonly string[]): Promise<void> {
    for (const key of keys) for (const ending of ['', NOTE]) await rm(this.at(key) + ending, { force: true })
  }

  /** Removes what is beyond the limit. @returns how many bytes went. */
  async sweep(nowMs: Ms = Date.now()): Promise<number> {
    const files: { name: string; usedMs: Ms; bytes: number }[] = []
    for (const name of await readdir(this.folder).catch(() => [])) {
      const facts = await stat(this.at(name)).catch(() => null)
      if (facts) files.push({ name, usedMs: facts.mtimeMs, bytes: facts.size })
    }
    files.sort((one, other) => other.usedMs - one.usedMs)
    let kept = 0,
      gone = 0
    for (const { name, usedMs, bytes } of files) {
      kept += bytes
      if (kept <= this.mostBytes || usedMs > nowMs - NEVER_WITHIN_MS) continue
      await rm(this.at(name), { force: true })
      gone += bytes
    }
    return gone
  }
}

const NOTE = '.json'

/** The same file under another name, or a copy of it where the disks differ. */
async function linked(from: string, to: string): Promise<void> {
  await link(from, to).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'EXDEV' || error.code === 'EPERM') return copyFile(from, to)
    if (error.code !== 'EEXIST') throw error
  })
}
