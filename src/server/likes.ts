// What sounds like a change that somebody tied by hand: looked for in the footage's sound, kept beside what was heard.
import { beginsWith } from '../core/align/model'
import type { Tie } from '../core/align/ties'
import type { Segment } from '../core/score/segment'
import { bandsOf } from '../engine/listen'
import { inTransaction } from './db'
import { addEvidence, type Footage } from './footage'
import { heavy } from './heavy/heavy'
import { storedFile } from './store'

/**
 * Likes of the newest tap of a kind take the place of those of the one before; nothing is looked for without sound.
 * @param footage the file that was tapped in: the same voice at another microphone is another sound.
 */
export async function findLikes(
  { id, hash, facts }: Pick<Footage, 'id' | 'hash' | 'facts'>,
  segments: readonly Segment[],
  { segmentId, edge, footageMs }: Tie,
  signal: AbortSignal,
): Promise<void> {
  const at = segments.findIndex((one) => one.id === segmentId)
  const word = beginsWith(edge === 'start' ? segments.slice(at) : [])
  if (at < 0 || !word || !hash || !facts?.audioCodec) return
  const bands = await bandsOf(await storedFile(hash, signal), facts, signal)
  const likes = await heavy('likes', { bands, tapMs: footageMs, word }, signal)
  await inTransaction(async (tx) => {
    await tx`
      delete from evidence where footage_id = ${id} and kind = 'sample' and payload->>'word' = ${word}`
    await addEvidence(tx, id, likes)
  })
}
