// What can be made again at any time, kept for this user on this machine. Where it cannot be kept it is made again:
// nothing fails for want of a cache.
import { randomUUID } from 'node:crypto'
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises'
import { homedir } from 'node:os'
import { join } from 'node:path'
import { DAY, type Ms } from '../core/units'

const KEPT_MS: Ms = 90 * DAY

/** Where what is called so is kept. */
export const cacheFolder = (name: string): string =>
  join(process.env.XDG_CACHE_HOME ?? join(homedir(), '.cache'), 'jivet', name)

export class Cache {
  /** @param name of what is kept, with the version of whatever makes it. */
  constructor(private readonly name: string) {}

  private get folder(): string {
    return cacheFolder(this.name)
  }

  /** @param key a file name. */
  async recall(key: string): Promise<Buffer | null> {
    return readFile(join(this.folder, key)).catch(() => null)
  }

  async keep(key: string, content: string | Uint8Array): Promise<void> {
    await this.write(key, content).catch(() => undefined)
  }

  private async write(key: string, content: string | Uint8Array): Promise<void> {
    await mkdir(this.folder, { recursive: true })
    const made = join(/*turbopackIgnore: true*/ this.folder, `${key}.${randomUUID()}`)
    await writeFile(made, content)
    await rename(made, join(this.folder, key))
    for (const name of await readdir(this.folder)) {
      const path = join(this.folder, name)
      const facts = await stat(path).catch(() => null)
      if (facts && facts.mtimeMs < Date.now() - KEPT_MS) await rm(path, { force: true })
    }
  }
}
