// What was heard and seen in a file is kept under the hash of its contents, for whoever asks again: the command after
// the server, a second command after the first, the same film in another workout. It can be thrown away at any time.
import { z } from 'zod'
import { evidenceSchema, EVIDENCE_VERSION } from '../core/evidence'
import { packPeaks, unpackPeaks } from '../core/hear/peaks'
import { Cache } from './cache'
import { gatherEvidence, type Gathered } from './gather'
import type { ListenOptions } from './listen'
import type { FootageFacts } from './probe'

const kept = new Cache(`heard-${EVIDENCE_VERSION}`, { mostBytes: 2e9, leastBytes: 2 })

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
  if (!gathered.deaf && !gathered.blind && !options.known?.size) await keep(hash, gathered)
  return gathered
}

async function recall(hash: string): Promise<Gathered | null> {
  const text = await kept.recall(hash)
  if (text === null) return null
  try {
    const { evidence, peaks } = keptSchema.parse(JSON.parse(text.toString()))
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

function keep(hash: string, { evidence, peaks }: Gathered): Promise<void> {
  const packed = peaks && Buffer.from(packPeaks(peaks)).toString('base64')
  return kept.keep(hash, JSON.stringify({ evidence, peaks: packed }))
}
