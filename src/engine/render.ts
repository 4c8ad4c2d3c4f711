// Renders the published video: footage with the overlay strip laid over it and the cues mixed under its sound. All
// times here are output time, through the cut.
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable, type Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { cuesFor, type Cue } from '../core/cue/cues'
import { isWhole, type Cut, type ShownSegment } from '../core/cut/cut'
import { overlayLayers, type Layer } from '../core/look/drawOverlay'
import { overlayChanges } from '../core/look/overlay'
import { Problem } from '../core/problem'
import type { Counting } from '../core/score/score'
import { cueLevel, USUAL_MIX, type Mix } from '../core/sound/mix'
import { cueTrack } from '../core/sound/track'
import type { Hertz, Ms, Share } from '../core/units'
import { footageInput, patience } from './input'
import type { FootageFacts } from './probe'
import { progressReader } from './progress'
import { drawStrip } from './strip'
import { COPY_TIMES, pictureOnTime, soundOnTime } from './timebase'
import { runTool } from './tool'

/** One place for what the picture is encoded with, so that the benchmark measures against the same. */
export const ENCODER: readonly string[] = [
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '19', '-profile:v', 'high', '-pix_fmt', 'yuv420p'],
]
export const SOUND_ENCODER: readonly string[] = ['-c:a', 'aac', '-b:a', '192k']

const QUIET = ['-v', 'error', '-nostdin', '-y'] as const

export interface RenderJob {
  footage: string
  facts: FootageFacts
  cut: Cut
  /** The segments in the cut's output time. */
  shown: readonly ShownSegment[]
  /** Which way the shown number goes. Default: down. */
  counting?: Counting
  /** Default: both as they are. */
  mix?: Mix
  out: string
  /** Where pictures wait; a fresh folder inside it is removed at the end. Default: the machine's folder for such. */
  scratch?: string
  signal?: AbortSignal
  onProgress?: (share: Share) => void
}

/**
 * Writes an MP4 (H.264, AAC, index first) of the footage's size and rate and of the cut's length.
 * @throws Problem `tool-failed`, `disk-full`, `tool-missing`, `cancelled`, or `spans-unsupported` for a cut that is
 * more than one footage followed as filmed.
 */
export async function renderVideo(job: RenderJob): Promise<void> {
  const { facts, cut } = job
  if (!isWhole(cut)) throw new Problem({ code: 'spans-unsupported', spans: cut.spans.length })
  const halt = new AbortController()
  const signal = job.signal ? AbortSignal.any([job.signal, halt.signal]) : halt.signal
  const folder = await mkdtemp(join(job.scratch ?? tmpdir(), 'jivet-strip-'))
  try {
    const changes = overlayChanges(job.shown, job.counting)
    const layers = overlayLayers(facts)
    const lists = await allOf(
      halt,
      layers.map((layer, number) =>
        drawStrip({ name: `layer${number}`, layer, changes, frame: facts, durationMs: cut.outMs, folder, signal }),
      ),
    )
    const picture = join(folder, 'picture.mp4'),
      sound = join(folder, 'sound.mp4')
    // Apart, because one ffmpeg filters and encodes sound on the very thread that feeds the picture's encoder.
    await allOf(halt, [renderPicture(job, { layers, lists, out: picture, signal }), renderSound(job, sound, signal)])
    await runTool(
      'ffmpeg',
      [
        ...[...QUIET, '-i', picture, '-i', sound, '-map', '0:v', '-map', '1:a', '-c', 'copy'],
        ...['-movflags', '+faststart', '-f', 'mp4', `file:${job.out}`],
      ],
      { signal, limitMs: patience(cut.outMs, 2) },
    )
  } catch (error) {
    halt.abort()
    throw error
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** All of it; where one fails the others are halted, and none is still at work on the folder that is swept. */
async function allOf<T>(halt: AbortController, work: readonly Promise<T>[]): Promise<T[]> {
  try {
    return await Promise.all(work)
  } catch (error) {
    halt.abort()
    await Promise.allSettled(work)
    throw error
  }
}

interface PictureParts {
  layers: readonly Layer[]
  /** The list of pictures of each layer. */
  lists: readonly string[]
  out: string
  signal: AbortSignal
}

async function renderPicture({ footage, facts, cut, onProgress }: RenderJob, parts: PictureParts): Promise<void> {
  const { layers, lists, out, signal } = parts
  await runTool(
    'ffmpeg',
    [
      ...[...QUIET, ...COPY_TIMES, ...footageInput(footage)],
      ...lists.flatMap((list) => ['-f', 'concat', '-safe', '0', '-i', list]),
      ...['-filter_complex', pictureFilter(facts, layers), '-map', '[picture]', ...ENCODER, '-fps_mode', 'passthrough'],
      ...['-f', 'mp4', '-progress', 'pipe:1', out],
    ],
    { signal, limitMs: patience(cut.outMs, 30), onOutput: progressReader(cut.outMs, onProgress) },
  )
}

async function renderSound(job: RenderJob, out: string, signal: AbortSignal): Promise<void> {
  const { footage, facts, cut, shown, mix = USUAL_MIX } = job
  const soundRate: Hertz = facts.audioRate === 44_100 ? 44_100 : 48_000
  const spoken = facts.audioCodec === null ? [] : ['-vn', ...footageInput(footage)]
  await runTool(
    'ffmpeg',
    [
      ...[...QUIET, ...COPY_TIMES, '-f', 'f32le', '-ar', String(soundRate), '-ac', '1', '-i', 'pipe:3', ...spoken],
      ...['-filter_complex', soundFilter(facts, soundRate, mix), '-map', '[sound]', ...SOUND_ENCODER, '-f', 'mp4', out],
    ],
    {
      signal,
      limitMs: patience(cut.outMs, 30),
      extraPipes: 1,
      feed: (child) => feedTrack(child.stdio[3] as Writable, { cues: cuesFor(shown), lengthMs: cut.outMs, soundRate }),
    },
  )
}

/** The footage is input 0, the layers follow from input 1 on. */
function pictureFilter(facts: FootageFacts, layers: readonly Layer[]): string {
  const shape = `scale=${facts.width}:${facts.height},setsar=1,format=yuv420p`
  const base = pictureOnTime(facts, { input: '0:V:0', output: 'under0', shape })
  const laid = layers.map(({ x, y }, number) => {
    const over = number === layers.length - 1 ? 'picture' : `under${number + 1}`
    return `[${number + 1}:v:0]format=yuva420p[layer${number}];[under${number}][layer${number}]overlay=x=${x}:y=${y}:eof_action=repeat:format=yuv420[${over}]`
  })
  return [base, ...laid].join(';')
}

/** The cue track is input 0 and exactly as long as the picture, so the mix is too; the footage is input 1. */
function soundFilter(facts: FootageFacts, soundRate: Hertz, mix: Mix): string {
  const layout = facts.audioChannels === 1 ? 'mono' : 'stereo'
  const shape = `aformat=sample_fmts=fltp:sample_rates=${soundRate}:channel_layouts=${layout}`
  const cues = `[0:a]${layout === 'stereo' ? 'pan=stereo|c0=c0|c1=c0,' : ''}${shape},volume=${cueLevel(mix)}`
  if (facts.audioCodec === null) return `${cues}[sound]`
  return (
    `${cues}[cues];[1:a:0]${soundOnTime(facts)},${shape},volume=${mix.voice}[spoken];` +
    `[cues][spoken]amix=inputs=2:duration=first:dropout_transition=0:normalize=0,alimiter=limit=0.95:level=0:attack=1:release=60:latency=1[sound]`
  )
}

interface Track {
  cues: readonly Cue[]
  lengthMs: Ms
  soundRate: Hertz
}

async function feedTrack(pipe: Writable, { cues, lengthMs, soundRate }: Track): Promise<void> {
  await pipeline(Readable.from(bytesOf(cueTrack(cues, lengthMs, soundRate))), pipe)
}

function* bytesOf(blocks: Iterable<Float32Array>): Generator<Buffer> {
  for (const block of blocks) yield Buffer.from(block.buffer, block.byteOffset, block.byteLength)
}
