// The sound of a video: the footage's own through the cut, with the cues mixed in, at the loudness that was asked for.
import { once } from 'node:events'
import type { Writable } from 'node:stream'
import { cueSheet, linesIn } from '../core/cue/cues'
import type { Cue } from '../core/cue/cue'
import { USUAL_CUES } from '../core/cue/wishes'
import { filmSteps } from '../core/cut/heard'
import { soundRunsOf, type SoundRun } from '../core/render/runs'
import { Joiner } from '../core/sound/joiner'
import { CEILING, Limiter } from '../core/sound/limiter'
import {
  duckedSteps,
  duckingFor,
  gainsFor,
  GainWalk,
  MIX_RATE,
  USUAL_MIX,
  type GainPoint,
  type Gains,
} from '../core/sound/mix'
import { bedOf, bedSteps, saidIn } from '../core/sound/music'
import type { Steps } from '../core/sound/loudness'
import { cueSteps, CueTrack, type Heard } from '../core/sound/track'
import { tone } from '../core/sound/voiced'
import type { Ms, Samples } from '../core/units'
import { encodersFor, QUIET } from './encoding'
import { footageFrom, patience } from './input'
import { channelsOf, loudnessOf } from './loudness'
import type { FootageFacts } from './probe'
import { BedReader, bedPlan, pieceLoudness, type BedPlan } from './music'
import { DRAWN, type RecordedFile, type RenderJob } from './renderJob'
import { sampleReader } from './samples'
import { linesAloud } from './lines'
import { COPY_TIMES, soundOnTime } from './timebase'
import { runTool } from './tool'

interface SoundParts {
  /** Where pieces of music wait. */
  folder: string
  plan: SoundPlan
  facts: FootageFacts
  out: string
  signal: AbortSignal
  /** How it is written, for ffmpeg. Default: as the sound of a video. */
  encoder?: readonly string[]
}

/** What is heard, decided before a sample is mixed. */
export interface SoundPlan {
  cues: readonly Cue[]
  heard: Heard
  gains: Gains
  ducking: readonly GainPoint[]
  /** Null where there is no music. */
  bed: BedPlan | null
}

const asVideo = ({ purpose }: RenderJob): string[] => [...encodersFor(purpose).sound, '-f', 'mp4']

export async function renderSound(
  job: RenderJob,
  { plan, facts, out, folder, signal, encoder = asVideo(job) }: SoundParts,
): Promise<void> {
  const channels = channelsOf(facts.audioChannels)
  await runTool(
    'ffmpeg',
    [
      ...[...QUIET, '-f', 'f32le', '-ar', String(MIX_RATE), '-ac', String(channels), '-i', 'pipe:3'],
      ...[...encoder, `file:${out}`],
    ],
    {
      signal,
      limitMs: patience(job.cut.outMs, 30),
      extraPipes: 1,
      feed: (child) => pourMix(job, { plan, channels, folder, signal }, child.stdio[3] as Writable),
    },
  )
}

/** All that is sounded and said, with what is said. @throws Problem of whatever speaks. */
export async function spokenCues(
  { shown, cueAsk = {}, recordings }: Pick<RenderJob, 'shown' | 'cueAsk' | 'recordings'>,
  signal: AbortSignal,
) {
  const { voice } = cueAsk.wishes ?? USUAL_CUES
  const lines = await linesAloud(voice, linesIn(shown, cueAsk), { recordings, signal })
  const { cues } = cueSheet(shown, { ...cueAsk, lineMs: lines.lengths, recorded: new Set(lines.lengths.keys()) })
  return { cues, lines }
}

/** @throws Problem of whatever speaks, or of a footage that cannot be read. */
export async function soundPlan(job: RenderJob, signal: AbortSignal): Promise<SoundPlan> {
  const { reel, cut, cueAsk = {}, mix = USUAL_MIX } = job
  const { family } = cueAsk.wishes ?? USUAL_CUES
  const { cues, lines } = await spokenCues(job, signal)
  const tones = new Map<string, Float32Array>()
  const heard: Heard = (cue) => {
    if (cue.line !== null) return lines.samples.get(cue.line) ?? null
    const known = tones.get(cue.sound) ?? tone(family, cue.sound, MIX_RATE)
    tones.set(cue.sound, known)
    return known
  }
  const files = await Promise.all(reel.map((file) => file.loudness ?? loudnessOf(file, signal)))
  const ducking = duckingFor(
    cues.filter(({ line }) => line !== null),
    mix.cuesOn ? mix.duckDb : 0,
  )
  const channels = channelsOf(reel[0]?.facts.audioChannels ?? DRAWN.audioChannels)
  const bed = await bedFor(job, cues, channels)
  const gains = gainsFor(
    {
      film: filmSteps(cut, files),
      cues: cueSteps(cues, heard, cut.outMs, MIX_RATE),
      ducked: duckedSteps(ducking, cut.outMs),
      channels,
      ...(bed ? { bed: bed.steps, bedDucked: duckedSteps(bed.plan.ducking, cut.outMs) } : {}),
    },
    mix,
  )
  return { cues, heard, gains, ducking, bed: bed?.plan ?? null }
}

/** The music under all of it; null where there is none. */
async function bedFor(
  { cut, shown, cueAsk = {}, mix = USUAL_MIX, music = [] }: RenderJob,
  cues: readonly Cue[],
  channels: 1 | 2,
): Promise<{ plan: BedPlan; steps: Steps | null } | null> {
  const parts = bedOf(
    shown,
    music.map(({ ms }) => ms),
  )
  if (!parts.length) return null
  const steps = await Promise.all(music.map((piece) => pieceLoudness(piece, channels)))
  const lines = cues.filter(({ line }) => line !== null)
  const ducking = duckingFor(saidIn(mix.cuesOn ? lines : [], cueAsk.coach ?? []), mix.duckDb)
  return { plan: bedPlan(parts, music, steps, ducking), steps: bedSteps(parts, steps, cut.outMs) }
}

interface Pouring {
  folder: string
  plan: SoundPlan
  channels: 1 | 2
  signal: AbortSignal
}

/** The whole mix, to the sample as long as the output. */
async function pourMix(job: RenderJob, pouring: Pouring, pipe: Writable): Promise<void> {
  const { plan, channels } = pouring
  const closed = new AbortController()
  pipe.once('close', () => closed.abort())
  const track = new CueTrack(plan.cues, plan.heard, MIX_RATE)
  const walk = new GainWalk(plan.ducking)
  const bed = plan.bed && new BedReader(plan.bed, channels, pouring.folder, pouring.signal)
  const limiter = new Limiter(MIX_RATE, channels, CEILING)
  const total: Samples = Math.round((job.cut.outMs * MIX_RATE) / 1000)
  let at: Samples = 0
  let early: Samples = limiter.latency
  const write = async (block: Float32Array): Promise<void> => {
    const own = block.subarray(Math.min(block.length, early * channels))
    early -= (block.length - own.length) / channels
    if (own.length && !pipe.write(bytes(own))) await once(pipe, 'drain', { signal: closed.signal })
  }
  const pour = async (film: Float32Array): Promise<void> => {
    const block = film.subarray(0, (total - at) * channels)
    if (!block.length) return
    const length = block.length / channels
    const music = await bed?.next(length)
    mixUnder(block, { cues: track.next(length), music, channels, gains: plan.gains, from: at, walk })
    at += length
    await write(limiter.limit(block))
  }
  try {
    await pourFilm(job, pouring, pour)
    while (at < total) await pour(new Float32Array(Math.min(MIX_RATE, total - at) * channels))
    await write(limiter.finish())
  } finally {
    await bed?.close()
  }
  await new Promise<void>((resolve) => pipe.end(resolve))
}

interface Under {
  cues: Float32Array
  /** Of all channels; without, there is none. */
  music: Float32Array | undefined
  channels: number
  gains: Gains
  /** Where in the output the block begins. */
  from: Samples
  walk: GainWalk
}

/** A gain that moves is reckoned anew so often. */
const GAIN_EVERY: Samples = 48

/** In place: the film goes down where it has to, the music beside it, and the cues come over both on all channels. */
function mixUnder(film: Float32Array, { cues, music, channels, gains, from, walk }: Under): void {
  let under = 0
  const bed = gains.music * gains.whole
  for (let sample = 0; sample < cues.length; sample++) {
    // At the same instants wherever blocks begin.
    if (sample === 0 || (from + sample) % GAIN_EVERY === 0) {
      const steady = Math.floor((from + sample) / GAIN_EVERY) * GAIN_EVERY
      under = gains.film * gains.whole * walk.gainAt((steady * 1000) / MIX_RATE)
    }
    const cue = (cues[sample] ?? 0) * gains.cues * gains.whole
    for (let channel = 0; channel < channels; channel++) {
      const at = sample * channels + channel
      film[at] = (film[at] ?? 0) * under + cue + (music?.[at] ?? 0) * bed
    }
  }
}

const bytes = (block: Float32Array): Buffer => Buffer.from(block.buffer, block.byteOffset, block.byteLength)

/** The footage's sound through the cut. */
async function pourFilm(
  { reel, cut }: RenderJob,
  pouring: Pouring,
  pour: (block: Float32Array) => Promise<void>,
): Promise<void> {
  if (reel.every(({ facts }) => facts.audioCodec === null)) return
  const joiner = new Joiner(pouring.channels)
  for (const part of soundRunsOf(cut, MIX_RATE)) {
    joiner.begin(part)
    const file = typeof part.run.source === 'number' ? reel[part.run.source] : undefined
    if (file && file.facts.audioCodec !== null)
      await decodeRun(file, part, pouring, async (block) => pour(joiner.join(block)))
    await pour(joiner.finish())
  }
}

/** Decoding begins so much earlier: what a decoder says first after a leap is not quite right. */
const LEAD_MS: Ms = 500

async function decodeRun(
  { path, facts }: RecordedFile,
  { fromMs, samples, run }: SoundRun,
  { channels, signal }: Pouring,
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
      ...['-af', `${onTime}${tempo},aresample=${MIX_RATE},atrim=end_sample=${samples}`],
      ...['-ac', String(channels), '-ar', String(MIX_RATE), '-f', 'f32le', 'pipe:1'],
    ],
    { signal, limitMs: patience(run.lengthMs, 30), onOutput: (chunk) => onBlock(samplesIn(chunk)) },
  )
}
