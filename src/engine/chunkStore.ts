// Rendered parts, kept by the keys of all that went into them: what is asked for again is not made again. The folder
// has a limit, and what was not used for the longest time goes first.
import { copyFile, link, mkdir, open, readdir, readFile, rename, rm, stat, utimes, writeFile } from 'node:fs/promises'
import { randomUUID } from 'node:crypto'
import { join } from 'node:path'
import { sum } from '../core/sum'
import type { Ms } from '../core/units'

/** Parts of a render that goes on are never swept. */
const NEVER_WITHIN_MS: Ms = 3_600_000
/** What is used every day need not be said to be young at each use. */
const SAID_AGAIN_MS: Ms = 24 * 3_600_000

/** Where several machines keep what each has made. */
export interface FarStore {
  has: (name: string) => Promise<boolean>
  put: (name: string, path: string) => Promise<void>
  /** @returns whether there is one of the name. */
  fetch: (name: string, to: string) => Promise<boolean>
  /** Makes it young, so that it is not swept soon. */
  touch: (name: string) => Promise<void>
  list: (prefix: string) => Promise<{ name: string; bytes: number; changedMs: Ms }[]>
  remove: (names: readonly string[]) => Promise<void>
}

export class ChunkStore {
  /**
   * @param mostBytes that are kept, here and far away, but for what was used within the last hour.
   * @param far where other machines find it, by the same keys. Default: nowhere.
   */
  constructor(
    private readonly folder: string,
    private readonly mostBytes: number,
    private readonly far: FarStore | null = null,
  ) {}

  private at(key: string): string {
    return join(/*turbopackIgnore: true*/ this.folder, key)
  }

  /** Whether it is there, or far away. */
  async has(key: string): Promise<boolean> {
    return (await this.isHere(key)) || ((await this.far?.has(FAR + key)) ?? false)
  }

  private isHere = async (key: string): Promise<boolean> => (await stat(this.at(key)).catch(() => null)) !== null

  /** Puts a part where it is needed; it stays there, whatever is swept. @returns whether it was there, or far away. */
  async take(key: string, to: string): Promise<boolean> {
    if (await this.takeHere(key, to)) return true
    return ((await this.far?.fetch(FAR + key, this.at(key))) ?? false) && this.takeHere(key, to)
  }

  private async takeHere(key: string, to: string): Promise<boolean> {
    const usedMs = (await stat(this.at(key)).catch(() => null))?.mtimeMs ?? 0
    try {
      await linked(this.at(key), to)
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') return false
      throw error
    }
    const now = new Date()
    await utimes(this.at(key), now, now).catch(() => undefined)
    if (usedMs < now.getTime() - SAID_AGAIN_MS) await this.far?.touch(FAR + key)
    return true
  }

  /** Keeps a finished part, which stays where it is. It is on the disk, and far away, when this returns. */
  async keep(key: string, path: string): Promise<void> {
    await mkdir(this.folder, { recursive: true })
    const file = await open(path, 'r')
    await file.sync().finally(() => file.close())
    const begun = `${this.at(key)}.${randomUUID()}`
    await linked(path, begun)
    await rename(begun, this.at(key))
    await this.far?.put(FAR + key, this.at(key))
  }

  /** What was found out about a part; null where nothing was. */
  async noted(key: string): Promise<unknown> {
    const path = this.at(key + NOTE)
    if (!(await this.isHere(key + NOTE))) await this.far?.fetch(FAR + key + NOTE, path)
    const note = await readFile(path, 'utf8').catch(() => null)
    try {
      return note === null ? null : JSON.parse(note)
    } catch {
      return null
    }
  }

  async note(key: string, note: unknown): Promise<void> {
    const begun = `${this.at(key)}.${randomUUID()}`
    await writeFile(begun, JSON.stringify(note))
    await rename(begun, this.at(key + NOTE))
    await this.far?.put(FAR + key + NOTE, this.at(key + NOTE))
  }

  /** For parts that turned out to be wrong. */
  async forget(keys: readonly string[]): Promise<void> {
    const names = keys.flatMap((key) => [key, key + NOTE])
    for (const name of names) await rm(this.at(name), { force: true })
    await this.far?.remove(names.map((name) => FAR + name))
  }

  /** Removes what is beyond the limit, here and far away. @returns how many bytes went here. */
  async sweep(nowMs: Ms = Date.now()): Promise<number> {
    const limit = { mostBytes: this.mostBytes, before: nowMs - NEVER_WITHIN_MS }
    const gone = await sweepFolder(this.folder, limit)
    if (this.far) await this.far.remove(beyond(await this.far.list(FAR), limit).map(({ name }) => name))
    return gone
  }
}

interface Limit {
  mostBytes: number
  /** What was used since stays in any case. */
  before: Ms
}

/** Removes the files of a folder that are beyond a limit, the longest unused first. @returns how many bytes went. */
export async function sweepFolder(folder: string, limit: Limit): Promise<number> {
  const files: { name: string; changedMs: Ms; bytes: number }[] = []
  const all = await readdir(folder, { recursive: true, withFileTypes: true }).catch(() => [])
  for (const entry of all) {
    const name = join(entry.parentPath, entry.name)
    const facts = entry.isFile() ? await stat(name).catch(() => null) : null
    if (facts) files.push({ name, changedMs: facts.mtimeMs, bytes: facts.size })
  }
  const gone = beyond(files, limit)
  for (const { name } of gone) await rm(name, { force: true })
  return sum(gone.map(({ bytes }) => bytes))
}

/** The longest unused of what does not fit. */
function beyond<File extends { changedMs: Ms; bytes: number }>(files: readonly File[], limit: Limit): File[] {
  let kept = 0
  return [...files]
    .sort((one, other) => other.changedMs - one.changedMs)
    .filter(({ changedMs, bytes }) => {
      kept += bytes
      return kept > limit.mostBytes && changedMs <= limit.before
    })
}

const NOTE = '.json'
/** How names begin far away. */
const FAR = 'chunks/'

/** The same file under another name, or a copy of it where the disks differ. */
async function linked(from: string, to: string): Promise<void> {
  await link(from, to).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'EXDEV' || error.code === 'EPERM') return copyFile(from, to)
    if (error.code !== 'EEXIST') throw error
  })
}
