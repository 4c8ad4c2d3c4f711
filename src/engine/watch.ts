// Decodes a recording's picture once, small and seldom, and hands it to who looks for movement.
import type { EvidenceOf } from '../core/evidence'
import { MovementListener, SMALL_PICTURE } from '../core/hear/movement'
import { SECOND, type Share } from '../core/units'
import { footageInput, patience } from './input'
import type { FootageFacts } from './probe'
import { COPY_TIMES, pictureOnTime } from './timebase'
import { runTool } from './tool'

/**
 * Where movement begins and ends.
 * @param onProgress called with the share done, 0 to 1.
 * @throws Problem `tool-failed`, `tool-missing` or `cancelled`.
 */
export async function watchMovement(
  path: string,
  facts: WatchedFacts,
  options: { signal?: AbortSignal; onProgress?: (share: Share) => void } = {},
): Promise<EvidenceOf<'motion'>[]> {
  const movement = new MovementListener()
  await smallPictures(path, facts, { ...options, onPicture: (picture) => movement.push(picture) })
  return movement.finish()
}

type WatchedFacts = Pick<FootageFacts, 'durationMs' | 'zeroS' | 'pictureFromMs' | 'rate'>

/**
 * Decodes the picture as `SMALL_PICTURE` says, from instant 0 on.
 * @param onPicture is given the same bytes each time, with other contents.
 * @throws Problem `tool-failed`, `tool-missing` or `cancelled`.
 */
export async function smallPictures(
  path: string,
  facts: WatchedFacts,
  {
    signal,
    onProgress,
    onPicture,
  }: { signal?: AbortSignal; onProgress?: (share: Share) => void; onPicture: (picture: Uint8Array) => void },
): Promise<void> {
  const { width, height, rate } = SMALL_PICTURE
  const picture = new Uint8Array(width * height)
  let filled = 0,
    pictures = 0
  const shape = `scale=${width}:${height}:flags=area,format=gray`
  await runTool(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', ...COPY_TIMES, ...footageInput(path), '-an', '-sn', '-dn'],
      '-filter_complex',
      `${pictureOnTime(facts, { input: '0:V:0', output: 'small', shape })};[small]fps=${rate}:start_time=0[seen]`,
      ...['-map', '[seen]', '-f', 'rawvideo', 'pipe:1'],
    ],
    {
      signal,
      limitMs: patience(facts.durationMs, 2),
      onOutput: (chunk) => {
        for (let at = 0; at < chunk.length;) {
          const part = chunk.subarray(at, at + picture.length - filled)
          picture.set(part, filled)
          filled = (filled + part.length) % picture.length
          at += part.length
          if (filled) continue
          onPicture(picture)
          pictures++
        }
        onProgress?.(Math.min(1, ((pictures / rate) * SECOND) / Math.max(1, facts.durationMs)))
      },
    },
  )
}
