// What can be made again at any time, kept for this user on this machine. Where it cannot be kept it is made again:
// nothing fails for want of a cache. Each has a limit; what was used longest ago goes first.
import { randomUUID } from 'node:crypto'
import { mkdir, open, readdir, readFile, rename, rm, stat, utimes } from 'node:fs/promises'
import { homedir } from 'node:os'
import { join } from 'node:path'
import { DAY, HOUR, type Ms } from '../core/units'

/** So long what nobody uses is kept. */
const KEPT_MS: Ms = 90 * DAY
const SWEPT_EVERY_MS: Ms = HOUR
/** A use is noted once a day. */
const NOTED_EVERY_MS: Ms = DAY

/** Where what is called so is kept. */
export const cacheFolder = (name: string): string =>
  join(process.env.XDG_CACHE_HOME || join(homedir(), '.cache'), 'jivet', name)

export interface CacheLimits {
  mostBytes: number
  /** What is shorter was never written to its end. */
  leastBytes: number
}

export class Cache {
  private sweptAt = -Infinity
  /** Since the last sweep. */
  private addedBytes = 0

  /** @param name of what is kept, with the version of whatever makes it. */
  constructor(
    private readonly name: string,
    private readonly limits: CacheLimits,
  ) {}

  private get folder(): string {
    return cacheFolder(this.name)
  }

  /** @param key a file name. */
  async recall(key: string): Promise<Buffer | null> {
    const path = join(this.folder, key)
    const content = await readFile(path).catch(() => null)
    if (!content || content.length < this.limits.leastBytes) return null
    await this.noteUse(path).catch(() => undefined)
    return content
  }

  /** How long an entry is, without reading it; null where there is none. */
  async bytesOf(key: string): Promise<number | null> {
    const path = join(this.folder, key)
    const facts = await stat(path).catch(() => null)
    if (!facts || facts.size < this.limits.leastBytes) return null
    await this.noteUse(path).catch(() => undefined)
    return facts.size
  }

  async keep(key: string, content: string | Uint8Array): Promise<void> {
    await this.write(key, Buffer.from(content)).catch(() => undefined)
  }

  private async noteUse(path: string): Promise<void> {
    const now = Date.now()
    if ((await stat(path)).mtimeMs < now - NOTED_EVERY_MS) await utimes(path, now / 1000, now / 1000)
  }

  private async write(key: string, content: Buffer): Promise<void> {
    await mkdir(this.folder, { recursive: true })
    const made = join(/*turbopackIgnore: true*/ this.folder, `${key}.${randomUUID()}`)
    const file = await open(made, 'wx')
    try {
      await file.writeFile(content)
      // Else a machine that stops leaves a name without its content.
      await file.sync()
    } finally {
      await file.close()
    }
    await rename(made, join(this.folder, key))
    this.addedBytes += content.length
    const isDue = performance.now() - this.sweptAt > SWEPT_EVERY_MS || this.addedBytes > this.limits.mostBytes / 10
    if (isDue) await this.sweep()
  }

  private async sweep(): Promise<void> {
    this.sweptAt = performance.now()
    this.addedBytes = 0
    const files: { path: string; bytes: number; usedMs: number }[] = []
    for (const name of await readdir(this.folder)) {
      const path = join(this.folder, name)
      const facts = await stat(path).catch(() => null)
      if (facts?.isFile()) files.push({ path, bytes: facts.size, usedMs: facts.mtimeMs })
    }
    files.sort((one, other) => other.usedMs - one.usedMs)
    let bytes = 0
    for (const file of files) {
      bytes += file.bytes
      if (bytes > this.limits.mostBytes || file.usedMs < Date.now() - KEPT_MS) await rm(file.path, { force: true })
    }
  }
}
