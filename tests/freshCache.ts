// What is heard of a film is kept for whoever asks again, from one file of tests to the next, but never from one run to
// the next: code that changed has to hear for itself.
import { chmodSync, mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { EVIDENCE_VERSION } from '../src/core/evidence'

export default function freshCache(): void {
  const cache = join(import.meta.dirname, '..', 'tmp', 'cache')
  const folder = join(cache, 'jivet', `heard-${EVIDENCE_VERSION}`)
  process.env.XDG_CACHE_HOME = cache
  rmSync(join(cache, 'jivet'), { recursive: true, force: true })
  mkdirSync(folder, { recursive: true })
  // Servers that root starts listen as an account of their own.
  chmodSync(folder, 0o777)
}
