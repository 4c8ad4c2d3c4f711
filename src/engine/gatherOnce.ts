// What was heard and seen in a file is kept under the hash of its contents, for whoever asks again: the command after
// the server, a second command after the first, the same film in another workout. It can be thrown away at any time.
import { randomUUID } from 'node:crypto'
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { z } from 'zod'
import { evidenceSchema, EVIDENCE_VERSION } from '../core/evidence'
import { packPeaks, unpackPeaks } from '../core/hear/peaks'
import { DAY, type Ms } from '../core/units'
import { cacheFolder } from './cache'
import { gatherEvidence, type Gathered } from './gather'
import type { ListenOptions } from './listen'
import type { FootageFacts } from './probe'

const KEPT_MS: Ms = 90 * DAY

const folder = (): string => cacheFolder(`heard-${EVIDENCE_VERSION}`)

const keptSchema = z.object({ evidence: evidenceSchema.array(), peaks: z.base64().nullable() })

/**
 * As `gatherEvidence`, but what was gathered before from a file of these contents is not gathered again.
 * @param hash of the file's contents.
 */
export async function gatherOnce(
  { path, hash }: { path: string; hash: string },
  facts: FootageFacts,
  options: ListenOptions = {},
): Promise<Gathered> {
  const known = await recall(hash)
  if (known) {
    options.onProgress?.(1)
    return known
  }
  const gathered = await gatherEvidence(path, facts, options)
  // What has a part missing, or was put together from attempts of another day, is no answer for later.
  if (!gathered.deaf && !gathered.blind && !options.known?.size) await keep(hash, gathered).catch(() => undefined)
  return gathered
}

async function recall(hash: string): Promise<Gathered | null> {
  const text = await readFile(join(folder(), hash), 'utf8').catch(() => null)
  if (text === null) return null
  try {
    const { evidence, peaks } = keptSchema.parse(JSON.parse(text))
    return {
      evidence,
      peaks: peaks === null ? null : unpackPeaks(Buffer.from(peaks, 'base64')),
      deaf: null,
      blind: null,
    }
  } catch {
    // Damaged, or of an older form: gathered anew.
    return null
  }
}

async function keep(hash: string, { evidence, peaks }: Gathered): Promise<void> {
  await mkdir(folder(), { recursive: true })
  const made = join(folder(), `${hash}.${randomUUID()}`)
  const packed = peaks && Buffer.from(packPeaks(peaks)).toString('base64')
  await writeFile(made, JSON.stringify({ evidence, peaks: packed }))
  await rename(made, join(folder(), hash))
  for (const name of await readdir(folder())) {
    const path = join(folder(), name)
    const facts = await stat(path).catch(() => null)
    if (facts && facts.mtimeMs < Date.now() - KEPT_MS) await rm(path, { force: true })
  }
}
