// What this program is, as far as it decides what a picture or a sound is like: a hash of its own sources. What another
// version has made is never taken for ours.
import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

let known: string | null = null

/** @returns 64 hexadecimal digits; others in each process where the sources are not there. */
export function programStamp(): string {
  known ??= stampOf([join(import.meta.dirname ?? '', '..', '..'), process.cwd()]) ?? digest([crypto.randomUUID()])
  return known
}

function stampOf(roots: readonly string[]): string | null {
  for (const root of roots) {
    try {
      return digest(
        ['core', 'engine'].flatMap((layer) => sourcesIn(join(root, 'src', layer))).map((path) => readFileSync(path)),
      )
    } catch {
      /* the next one may have them */
    }
  }
  return null
}

const sourcesIn = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
    .sort()
    .map((name) => join(folder, name))

function digest(parts: readonly (string | Buffer)[]): string {
  const sum = createHash('sha256')
  for (const part of parts) sum.update(part)
  return sum.digest('hex')
}
