// Renders the published video: footage with the overlay strip laid over it and the cues mixed under its sound.
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable, type Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { cuesFor } from '../core/cue/cues'
import type { LaidSegment } from '../core/cut/lane'
import { overlayStrip } from '../core/look/drawOverlay'
import { overlayChanges } from '../core/look/overlay'
import { cueTrack } from '../core/sound/track'
import type { Hertz, Ms } from '../core/units'
import type { FootageFacts } from './probe'
import { progressReader } from './progress'
import { drawStrip } from './strip'
import { runTool } from './tool'

/** One place for what the picture is encoded with, so that the benchmark measures against the same. */
export const ENCODER: readonly string[] = ['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '19', '-profile:v', 'high', '-pix_fmt', 'yuv420p']
export const SOUND_ENCODER: readonly string[] = ['-c:a', 'aac', '-b:a', '192k']

export interface RenderJob {
  footage: string
  facts: FootageFacts
  lane: readonly LaidSegment[]
  out: string
  /** Where pictures wait; a fresh folder inside it is removed at the end. Default: the machine's folder for such. */
  scratch?: string
  signal?: AbortSignal
  onProgress?: (share: number) => void
}

/**
 * Writes an MP4 (H.264, AAC, index first) of the footage's size, rate and length.
 * @throws Problem `tool-failed`, `disk-full`, `tool-missing` or `cancelled`.
 */
export async function renderVideo(job: RenderJob): Promise<void> {
  const { facts } = job
  const folder = await mkdtemp(join(job.scratch ?? tmpdir(), 'jivet-strip-'))
  try {
    const list = await drawStrip(overlayChanges(job.lane), facts, facts.durationMs, folder, job.signal)
    const soundRate: Hertz = facts.audioRate === 44_100 ? 44_100 : 48_000
    await runTool('ffmpeg', [
      '-v', 'error', '-nostdin', '-y', '-i', `file:${job.footage}`,
      '-f', 'concat', '-safe', '0', '-i', list,
      '-f', 'f32le', '-ar', String(soundRate), '-ac', '1', '-i', 'pipe:3',
      '-filter_complex', `${pictureFilter(facts)};${soundFilter(facts, soundRate)}`,
      '-map', '[picture]', '-map', '[sound]', ...ENCODER, '-fps_mode', 'passthrough', ...SOUND_ENCODER,
      '-movflags', '+faststart', '-f', 'mp4', '-progress', 'pipe:1', `file:${job.out}`,
    ], {
      signal: job.signal, extraPipes: 1,
      feed: (child) => feedTrack(child.stdio[3] as Writable, job.lane, facts.durationMs, soundRate),
      onOutput: progressReader(facts.durationMs, job.onProgress),
    })
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

function pictureFilter(facts: FootageFacts): string {
  const strip = overlayStrip(facts)
  const base = `[0:V:0]setpts=PTS-STARTPTS,scale=${facts.width}:${facts.height},setsar=1,format=yuv420p[base]`
  return `${base};[1:v:0]format=yuva420p[strip];[base][strip]overlay=x=${strip.x}:y=${strip.y}:eof_action=repeat:format=yuv420[picture]`
}

/** The cue track is the first input of the mix and exactly as long as the picture, so the sound is too. */
function soundFilter(facts: FootageFacts, soundRate: Hertz): string {
  const layout = facts.audioChannels === 1 ? 'mono' : 'stereo'
  const shape = `aformat=sample_fmts=fltp:sample_rates=${soundRate}:channel_layouts=${layout}`
  const cues = `[2:a]${layout === 'stereo' ? 'pan=stereo|c0=c0|c1=c0,' : ''}${shape}`
  if (facts.audioCodec === null) return `${cues}[sound]`
  return `${cues}[cues];[0:a:0]aresample=async=1:first_pts=0,${shape}[spoken];`
    + `[cues][spoken]amix=inputs=2:duration=first:dropout_transition=0:normalize=0,alimiter=limit=0.95:level=0:attack=1:release=60:latency=1[sound]`
}

async function feedTrack(pipe: Writable, lane: readonly LaidSegment[], durationMs: Ms, soundRate: Hertz): Promise<void> {
  await pipeline(Readable.from(bytesOf(cueTrack(cuesFor(lane), durationMs, soundRate))), pipe)
}

function* bytesOf(blocks: Iterable<Float32Array>): Generator<Buffer> {
  for (const block of blocks) yield Buffer.from(block.buffer, block.byteOffset, block.byteLength)
}
