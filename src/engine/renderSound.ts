// The sound of a video: the footage's own through the cut, with the cues mixed in.
import { once } from 'node:events'
import { Readable, type Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { cuesFor } from '../core/cue/cues'
import { soundRunsOf, type SoundRun } from '../core/render/runs'
import { Joiner } from '../core/sound/joiner'
import { cueLevel, USUAL_MIX, type Mix } from '../core/sound/mix'
import { cueTrack } from '../core/sound/track'
import type { Hertz, Ms } from '../core/units'
import { QUIET, SOUND_ENCODER } from './encoding'
import { footageFrom, footageInput, patience } from './input'
import type { FootageFacts } from './probe'
import type { RecordedFile, RenderJob } from './renderJob'
import { sampleReader } from './samples'
import { COPY_TIMES, soundOnTime } from './timebase'
import { runTool } from './tool'

interface SoundParts {
  /** One footage, as it is: read by the encoder itself. */
  asIs: boolean
  facts: FootageFacts
  out: string
  signal: AbortSignal
}

export async function renderSound(job: RenderJob, { asIs, facts, out, signal }: SoundParts): Promise<void> {
  const { reel, cut, shown, mix = USUAL_MIX } = job
  const format: Format = {
    rate: facts.audioRate === 44_100 ? 44_100 : 48_000,
    channels: facts.audioChannels === 1 ? 1 : 2,
  }
  const hasSound = reel.some((file) => file.facts.audioCodec !== null)
  const spoken = !hasSound ? [] : asIs ? ['-vn', ...footageInput(reel[0]?.path ?? '')] : rawInput(format, 4)
  const filter = soundFilter(format, mix, hasSound ? (asIs ? soundOnTime(facts) : 'anull') : null)
  await runTool(
    'ffmpeg',
    [
      ...[...QUIET, ...COPY_TIMES, ...rawInput({ ...format, channels: 1 }, 3), ...spoken],
      ...['-filter_complex', filter, '-map', '[sound]', ...SOUND_ENCODER, '-f', 'mp4', out],
    ],
    {
      signal,
      limitMs: patience(cut.outMs, 30),
      extraPipes: hasSound && !asIs ? 2 : 1,
      feed: async (child) => {
        const [, , , cues, film] = child.stdio
        const track = cueTrack(cuesFor(shown), cut.outMs, format.rate)
        await Promise.all([
          pipeline(Readable.from(bytesOf(track)), cues as Writable),
          film && pourFilm(job, { format, signal }, film as Writable),
        ])
      },
    },
  )
}

interface Format {
  rate: Hertz
  channels: 1 | 2
}

const rawInput = ({ rate, channels }: Format, pipe: number): string[] => [
  ...['-f', 'f32le', '-ar', String(rate), '-ac', String(channels), '-i', `pipe:${pipe}`],
]

/** The cue track is input 0 and exactly as long as the picture, so the mix is too; the footage is input 1. */
function soundFilter({ rate, channels }: Format, mix: Mix, spoken: string | null): string {
  const layout = channels === 1 ? 'mono' : 'stereo'
  const shape = `aformat=sample_fmts=fltp:sample_rates=${rate}:channel_layouts=${layout}`
  const cues = `[0:a]${layout === 'stereo' ? 'pan=stereo|c0=c0|c1=c0,' : ''}${shape},volume=${cueLevel(mix)}`
  if (spoken === null) return `${cues}[sound]`
  return (
    `${cues}[cues];[1:a:0]${spoken},${shape},volume=${mix.voice}[spoken];` +
    `[cues][spoken]amix=inputs=2:duration=first:dropout_transition=0:normalize=0,alimiter=limit=0.95:level=0:attack=1:release=60:latency=1[sound]`
  )
}

function* bytesOf(blocks: Iterable<Float32Array>): Generator<Buffer> {
  for (const block of blocks) yield bytes(block)
}

const bytes = (block: Float32Array): Buffer => Buffer.from(block.buffer, block.byteOffset, block.byteLength)

interface Pouring {
  format: Format
  signal: AbortSignal
}

/** The footage's sound through the cut, to the sample as long as the output. */
async function pourFilm({ reel, cut }: RenderJob, pouring: Pouring, pipe: Writable): Promise<void> {
  const { rate, channels } = pouring.format
  const joiner = new Joiner(channels)
  const closed = new AbortController()
  pipe.once('close', () => closed.abort())
  const pour = async (block: Float32Array): Promise<void> => {
    if (block.length && !pipe.write(bytes(block))) await once(pipe, 'drain', { signal: closed.signal })
  }
  for (const part of soundRunsOf(cut, rate)) {
    joiner.begin(part)
    const file = typeof part.run.source === 'number' ? reel[part.run.source] : undefined
    if (file && file.facts.audioCodec !== null)
      await decodeRun(file, part, pouring, async (block) => pour(joiner.join(block)))
    await pour(joiner.finish())
  }
  await new Promise<void>((resolve) => pipe.end(resolve))
}

/** Decoding begins so much earlier: what a decoder says first after a leap is not quite right. */
const LEAD_MS: Ms = 500

async function decodeRun(
  { path, facts }: RecordedFile,
  { fromMs, samples, run }: SoundRun,
  { format: { rate, channels }, signal }: Pouring,
  onBlock: (block: Float32Array) => Promise<void>,
): Promise<void> {
  const onTime = soundOnTime({ zeroS: facts.zeroS + fromMs / 1000 })
  const tempo = run.rate === 1 ? '' : `,atempo=${run.rate}`
  const samplesIn = sampleReader(channels)
  await runTool(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', ...COPY_TIMES],
      ...[...footageFrom(path, fromMs - LEAD_MS), '-map', '0:a:0', '-vn', '-sn', '-dn'],
      ...['-af', `${onTime}${tempo},aresample=${rate},atrim=end_sample=${samples}`],
      ...['-ac', String(channels), '-ar', String(rate), '-f', 'f32le', 'pipe:1'],
    ],
    { signal, limitMs: patience(run.lengthMs, 30), onOutput: (chunk) => onBlock(samplesIn(chunk)) },
  )
}
