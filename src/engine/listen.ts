// Decodes a recording's sound once and hands the same samples to whoever listens: tones, peaks.
import { PeakGatherer, type PeakLevel } from '../core/hear/peaks'
import { HEARING_RATE, ToneListener, type Beep } from '../core/hear/tones'
import type { Ms } from '../core/units'
import { runTool } from './tool'

export interface Heard {
  beeps: Beep[]
  peaks: PeakLevel[]
  soundMs: Ms
}

/**
 * @param onProgress called with the share done, 0 to 1.
 * @throws Problem `tool-failed`, `tool-missing` or `cancelled`.
 */
export async function listenTo(
  path: string,
  durationMs: Ms,
  options: { signal?: AbortSignal; onProgress?: (share: number) => void } = {},
): Promise<Heard> {
  const tones = new ToneListener()
  const peaks = new PeakGatherer()
  let samples = 0
  await decodeSound(path, options.signal, (block) => {
    tones.push(block)
    peaks.push(block)
    samples += block.length
    options.onProgress?.(Math.min(1, ((samples / HEARING_RATE) * 1000) / Math.max(1, durationMs)))
  })
  return { beeps: tones.finish(), peaks: peaks.finish(), soundMs: Math.round((samples / HEARING_RATE) * 1000) }
}

/** Mono float samples at `HEARING_RATE` from picture time 0 on, gaps filled with silence. */
async function decodeSound(
  path: string,
  signal: AbortSignal | undefined,
  onBlock: (block: Float32Array) => void,
): Promise<void> {
  let rest: Buffer = Buffer.alloc(0)
  await runTool(
    'ffmpeg',
    [
      '-v',
      'error',
      '-nostdin',
      '-i',
      `file:${path}`,
      '-map',
      '0:a:0',
      '-vn',
      '-af',
      'aresample=async=1:first_pts=0',
      '-ac',
      '1',
      '-ar',
      String(HEARING_RATE),
      '-f',
      'f32le',
      'pipe:1',
    ],
    {
      signal,
      onOutput: (chunk) => {
        const bytes = rest.length ? Buffer.concat([rest, chunk]) : chunk
        const whole = bytes.length - (bytes.length % 4)
        const aligned = new Uint8Array(bytes.subarray(0, whole))
        onBlock(new Float32Array(aligned.buffer, 0, whole / 4))
        rest = bytes.subarray(whole)
      },
    },
  )
}
