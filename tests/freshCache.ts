// What is heard, said and measured is kept for whoever asks again, from one file of tests to the next, but never from
// one run to the next: code that changed has to hear for itself. At the end the server that files shared is ended.
import { chmodSync, mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { EVIDENCE_VERSION } from '../src/core/evidence'
import { LOUDNESS } from '../src/engine/loudness'
import { SAID } from '../src/engine/voices'
import { endShared } from './e2e/jivet'

export default async function freshCache(): Promise<() => Promise<void>> {
  // Left behind by a run that was killed.
  await endShared()
  const cache = join(import.meta.dirname, '..', 'tmp', 'cache')
  process.env.XDG_CACHE_HOME = cache
  rmSync(join(cache, 'jivet'), { recursive: true, force: true })
  for (const name of [`heard-${EVIDENCE_VERSION}`, SAID, LOUDNESS]) {
    const folder = join(cache, 'jivet', name)
    mkdirSync(folder, { recursive: true })
    // Servers that root starts listen as an account of their own.
    chmodSync(folder, 0o777)
  }
  return endShared
}
