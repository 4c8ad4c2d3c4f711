// What is heard of a film is kept for whoever asks again, from one file of tests to the next, but never from one run to
// the next: code that changed has to hear for itself.
import { rmSync } from 'node:fs'
import { join } from 'node:path'

export default function freshCache(): void {
  process.env.XDG_CACHE_HOME = join(import.meta.dirname, '..', 'tmp', 'cache')
  rmSync(join(process.env.XDG_CACHE_HOME, 'jivet'), { recursive: true, force: true })
}
