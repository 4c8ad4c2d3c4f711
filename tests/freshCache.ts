// What is heard, said and measured is kept for whoever asks again, from one file of tests to the next, but never from
// one run to the next: code that changed has to hear for itself.
import { chmodSync, mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { EVIDENCE_VERSION } from '../src/core/evidence'
import { LOUDNESS } from '../src/engine/loudness'
import { SAID } from '../src/engine/voices'

export default function freshCache(): void {
  const cache = join(import.meta.dirname, '..', 'tmp', 'cache', process.env.JIVET_TEST_PART ?? 'all')
  process.env.XDG_CACHE_HOME = cache
  rmSync(join(cache, 'jivet'), { recursive: true, force: true })
  for (const name of [`heard-${EVIDENCE_VERSION}`, SAID, LOUDNESS]) {
    const folder = join(cache, 'jivet', name)
    mkdirSync(folder, { recursive: true })
    // Servers that root starts listen as an account of their own.
    chmodSync(folder, 0o777)
  }
}
