// Measures a rendered file by decoding it: when the count's block changes, where a cue stands in the sound, how long it
// is.
import { execFileSync, spawn } from 'node:child_process'
import { soundOf } from '../../src/core/sound/families'
import type { Sound } from '../../src/core/cue/cue'

export interface Probe {
  video: { durationMs: number; frames: number; width: number; height: number; codec: string; rate: string }
  audio: { durationMs: number; codec: string }
  faststart: boolean
}

export function probe(file: string): Probe {
  const { streams } = JSON.parse(
    execFileSync('ffprobe', ['-v', 'error', '-show_streams', '-count_packets', '-of', 'json', file]).toString(),
  ) as { streams: Record<string, string>[] }
  const video = streams.find((stream) => stream.codec_type === 'video')!,
    audio = streams.find((stream) => stream.codec_type === 'audio')!
  const head = execFileSync('head', ['-c', '200000', file]).toString('latin1')
  const index = head.indexOf('moov'),
    data = head.indexOf('mdat')
  return {
    video: {
      durationMs: Number(video.duration) * 1000,
      frames: Number(video.nb_read_packets),
      width: Number(video.width),
      height: Number(video.height),
      codec: video.codec_name!,
      rate: video.r_frame_rate!,
    },
    audio: { durationMs: Number(audio.duration) * 1000, codec: audio.codec_name! },
    faststart: index > 0 && (data < 0 || index < data),
  }
}

/** One pixel in so many is compared: a prime, so that no column is favoured. */
const SAMPLED = 7

/**
 * Numbers of the frames whose picture, within a crop, differs from the frame before by a mean of more than `threshold`
 * grey levels.
 */
export async function framesThatChange(
  file: string,
  crop: { x: number; y: number; width: number; height: number },
  threshold: number,
): Promise<number[]> {
  const size = crop.width * crop.height
  const decoder = spawn(
    'ffmpeg',
    [
      '-v',
      'error',
      '-i',
      file,
      '-vf',
      `crop=${crop.width}:${crop.height}:${crop.x}:${crop.y}`,
      '-fps_mode',
      'passthrough',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'gray',
      'pipe:1',
    ],
    { stdio: ['ignore', 'pipe', 'inherit'] },
  )
  const changed: number[] = []
  let held = Buffer.alloc(0),
    before: Buffer | null = null,
    frame = 0
  for await (const chunk of decoder.stdout) {
    held = Buffer.concat([held, chunk as Buffer])
    for (; held.length >= size; held = held.subarray(size)) {
      const now = Buffer.from(held.subarray(0, size))
      if (before) {
        let sum = 0
        for (let at = 0; at < size; at += SAMPLED) sum += Math.abs(now[at]! - before[at]!)
        if (sum / (size / SAMPLED) > threshold) changed.push(frame)
      }
      before = now
      frame++
    }
  }
  return changed
}

export const SAMPLE_RATE = 48_000

export function samplesOf(file: string): Float32Array {
  const bytes = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', file, '-map', '0:a', '-ac', '1', '-ar', String(SAMPLE_RATE), '-f', 'f32le', 'pipe:1'],
    { maxBuffer: 2 ** 30 },
  )
  return new Float32Array(new Uint8Array(bytes).buffer)
}

/**
 * Where a cue's sound really starts near an instant: the shift at which it matches best, by normalised correlation.
 * @returns its distance from `atMs`, and how well it matched (1 is alone and exact).
 */
export function findCue(
  samples: Float32Array,
  cue: Sound,
  atMs: number,
  reachMs = 40,
): { offMs: number; match: number } {
  // With the silence before it: a tone that dies away is like its own beginning at any later instant.
  const before = Math.round(0.02 * SAMPLE_RATE)
  const sound = new Float32Array(Math.round(0.11 * SAMPLE_RATE))
  sound.set(soundOf('bell', cue, SAMPLE_RATE).subarray(0, sound.length - before), before)
  const reach = Math.round((reachMs / 1000) * SAMPLE_RATE),
    middle = Math.round((atMs / 1000) * SAMPLE_RATE) - before
  let best = { offMs: 0, match: -1 }
  for (let shift = -reach; shift <= reach; shift += 4) {
    let product = 0,
      ours = 0,
      theirs = 0
    for (let at = 0; at < sound.length; at += 2) {
      const sample = samples[middle + shift + at] ?? 0
      product += sample * sound[at]!
      ours += sound[at]! ** 2
      theirs += sample ** 2
    }
    const match = product / Math.sqrt(ours * theirs || 1)
    if (match > best.match) best = { offMs: (shift / SAMPLE_RATE) * 1000, match }
  }
  return best
}
