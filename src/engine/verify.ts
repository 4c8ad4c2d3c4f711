// Decodes a rendered video and checks that it is what it should be: its length, every change of the count to the
// picture, every tone and line to the millisecond, its loudness and its peak.
import { LETS, type Verified } from '../core/proof/verify'
import type { Expected, Found, Known } from './expected'
import { probeFootage } from './probe'
import { verifyPicture } from './verifyPicture'
import { verifySound } from './verifySound'

/** @throws Problem where the video cannot be read. */
export const verifyVideo = async (video: string, expected: Expected, signal?: AbortSignal): Promise<Verified> =>
  (await lookThrough(video, expected, {}, signal)).verified

/** The same for a video of which parts are known. */
export async function lookThrough(
  video: string,
  expected: Expected,
  known: Known,
  signal?: AbortSignal,
): Promise<Found> {
  const facts = await probeFootage(video, signal)
  const [picture, sound] = await Promise.all([
    verifyPicture(video, expected, { facts, frames: known.frames }, signal),
    known.sound ?? verifySound(video, expected, facts, signal),
  ])
  const { outMs } = expected.cut
  const faults = [...picture.faults, ...sound.faults]
  if (Math.abs(picture.lengthMs - outMs) > LETS.lengthMs)
    faults.unshift({ kind: 'length', atMs: null, found: Math.round(picture.lengthMs), expected: outMs, what: '' })
  if (Math.abs(picture.lengthMs - sound.lengthMs) > LETS.apartMs)
    faults.push({
      ...{ kind: 'apart' as const, atMs: null, what: '' },
      ...{ found: Math.round(sound.lengthMs), expected: Math.round(picture.lengthMs) },
    })
  const offs = picture.turns.map(({ off }) => Math.abs(off))
  const counts = {
    checked: offs.length + (known.counts?.checked ?? 0),
    worstFrames: Math.max(0, ...offs, known.counts?.worstFrames ?? 0),
  }
  const verified = {
    ...{ ok: !faults.length, lengthMs: Math.round(picture.lengthMs), expectedMs: outMs, counts },
    ...{ cues: sound.cues, loudness: sound.loudness, faults },
  }
  return { verified, turns: picture.turns, sound }
}
