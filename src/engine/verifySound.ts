// The sound of a rendered video against what it should be: every tone and line to the millisecond, its loudness and its
// peak.
import type { Cue } from '../core/cue/cue'
import { CLEAR_MATCH, findSound, LEAST_MATCH, LETS, type Fault } from '../core/proof/verify'
import { integrated, levelOf, LoudnessMeter } from '../core/sound/loudness'
import { MIX_RATE, TARGETS } from '../core/sound/mix'
import { PeakFinder } from '../core/sound/truePeak'
import type { Heard } from '../core/sound/track'
import type { Ms, Samples } from '../core/units'
import { footageInput, patience } from './input'
import { channelsOf } from './loudness'
import type { FootageFacts } from './probe'
import { sampleReader } from './samples'
import { runTool } from './tool'
import type { Expected, SoundFound } from './expected'

/** So far around its instant a sound is looked for, and so much of it. */
const REACH_MS: Ms = 60
const BEFORE_MS: Ms = 20
const OF_TONE_MS: Ms = 90
const OF_LINE_MS: Ms = 350

interface Listening {
  cue: Cue
  from: Samples
  window: Float32Array
  template: Float32Array
}

export async function verifySound(
  video: string,
  { cues, heard, mix }: Expected,
  facts: FootageFacts,
  signal?: AbortSignal,
): Promise<SoundFound> {
  const listener = new CueListener(mix.cuesOn ? cues : [], heard, facts.durationMs)
  const { lufs, peakDb, lengthMs } = await listen(video, listener, { facts, signal })
  const { faults, told } = listener
  const targetLufs = TARGETS[mix.target]
  if (targetLufs !== null && lufs !== null && Math.abs(lufs - targetLufs) > LETS.lufs)
    faults.push({ kind: 'loudness', atMs: null, found: round1(lufs), expected: targetLufs, what: '' })
  if (targetLufs !== null && peakDb > LETS.peakDb)
    faults.push({ kind: 'peak', atMs: null, found: round1(peakDb), expected: -1, what: '' })
  const loudness = { lufs: lufs === null ? null : round1(lufs), targetLufs, peakDb: round1(peakDb) }
  return { faults, cues: told, loudness, lengthMs }
}

const inSamples = (ms: Ms): Samples => Math.round((ms * MIX_RATE) / 1000)

/** Looks for each cue around its instant as the sound goes by, and keeps of it only what it is still looking at. */
class CueListener {
  readonly faults: Fault[] = []
  readonly told = { checked: 0, worstMs: 0 }
  /** The next first. */
  private readonly waiting: Cue[]
  private open: Listening[] = []

  constructor(
    cues: readonly Cue[],
    private readonly heard: Heard,
    durationMs: Ms,
  ) {
    this.waiting = cues
      .filter(
        (cue) => heard(cue) && cue.atMs + lengthOf(cue) + REACH_MS <= durationMs && cue.atMs >= BEFORE_MS + REACH_MS,
      )
      .sort((one, other) => one.atMs - other.atMs)
    this.told.checked = this.waiting.length
  }

  /** @param at of the block's first sample; the first channel is listened to. */
  hear(block: Float32Array, channels: number, at: Samples): void {
    const end = at + block.length / channels
    this.take(end)
    for (const { from, window } of this.open) {
      const last = Math.min(from + window.length, end)
      for (let sample = Math.max(from, at); sample < last; sample++)
        window[sample - from] = block[(sample - at) * channels] ?? 0
    }
    const isOver = ({ from, window }: Listening): boolean => from + window.length <= end
    for (const one of this.open) if (isOver(one)) this.judge(one)
    this.open = this.open.filter((one) => !isOver(one))
  }

  /** What was still being looked at when the sound ended. */
  finish(): void {
    this.take(Infinity)
    this.open.forEach((one) => this.judge(one))
    this.open = []
  }

  /** Begins with all that begin before a sample. */
  private take(end: Samples): void {
    for (let cue = this.waiting[0]; cue && fromOf(cue) < end; cue = this.waiting[0]) {
      this.waiting.shift()
      const template = new Float32Array(inSamples(BEFORE_MS + lengthOf(cue)))
      const sound = this.heard(cue) ?? template.subarray(0, 0)
      template.set(sound.subarray(0, template.length - inSamples(BEFORE_MS)), inSamples(BEFORE_MS))
      const window = new Float32Array(template.length + 2 * inSamples(REACH_MS))
      this.open.push({ cue, from: fromOf(cue), window, template })
    }
  }

  private judge({ cue, window, template }: Listening): void {
    const { at, match } = findSound(window, template)
    const offMs = ((at - inSamples(REACH_MS)) * 1000) / MIX_RATE
    const what = cue.line ?? cue.sound
    const isOff = Math.abs(offMs) > LETS.cueMs
    // What is hardly like it, and elsewhere, is something else.
    const isHeard = match >= (isOff ? CLEAR_MATCH : LEAST_MATCH)
    if (!isHeard) this.faults.push({ kind: 'unheard', atMs: cue.atMs, found: 0, expected: 1, what })
    else if (isOff) this.faults.push({ kind: 'cue', atMs: cue.atMs, found: Math.round(offMs), expected: 0, what })
    if (isHeard) this.told.worstMs = Math.max(this.told.worstMs, Math.round(Math.abs(offMs) * 10) / 10)
  }
}

const lengthOf = ({ line }: Cue): Ms => (line === null ? OF_TONE_MS : OF_LINE_MS)
const fromOf = ({ atMs }: Cue): Samples => inSamples(atMs) - inSamples(BEFORE_MS + REACH_MS)

const round1 = (value: number): number => Math.round(value * 10) / 10

/** Decodes the sound once: loudness and peak of all of it, and each cue. */
async function listen(
  video: string,
  listener: CueListener,
  { facts, signal }: { facts: FootageFacts; signal: AbortSignal | undefined },
): Promise<{ lufs: number | null; peakDb: number; lengthMs: Ms }> {
  const channels = channelsOf(facts.audioChannels)
  const meter = new LoudnessMeter(MIX_RATE, channels)
  const finders = Array.from({ length: channels }, () => new PeakFinder(0.5))
  const samplesIn = sampleReader(channels)
  let at: Samples = 0,
    highest = 0
  const hear = (block: Float32Array): void => {
    meter.add(block)
    for (let index = 0; index < block.length; index++)
      highest = Math.max(highest, finders[index % channels]?.next(block[index] ?? 0) ?? 0)
    listener.hear(block, channels, at)
    at += block.length / channels
  }
  await runTool(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', ...footageInput(video), '-map', '0:a:0', '-vn'],
      ...['-ac', String(channels), '-ar', String(MIX_RATE), '-f', 'f32le', 'pipe:1'],
    ],
    {
      ...(signal ? { signal } : {}),
      limitMs: patience(facts.durationMs, 10),
      onOutput: (chunk) => hear(samplesIn(chunk)),
    },
  )
  listener.finish()
  return { lufs: integrated(meter.finish().energy), peakDb: levelOf(highest), lengthMs: (at * 1000) / MIX_RATE }
}
