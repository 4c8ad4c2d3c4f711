// The sound of a rendered video against what it should be: every tone and line to the millisecond, its loudness and its
// peak.
import type { Cue } from '../core/cue/cue'
import { CLEAR_MATCH, findSound, LEAST_MATCH, LETS, type Fault } from '../core/proof/verify'
import { integrated, levelOf, LoudnessMeter } from '../core/sound/loudness'
import { MIX_RATE, TARGETS } from '../core/sound/mix'
import { PeakFinder } from '../core/sound/truePeak'
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
  const { durationMs } = facts
  const inMs = (ms: Ms): Samples => Math.round((ms * MIX_RATE) / 1000)
  const listening = (mix.cuesOn ? cues : []).flatMap((cue): Listening[] => {
    const sound = heard(cue)
    const lengthMs = cue.line === null ? OF_TONE_MS : OF_LINE_MS
    if (!sound || cue.atMs + lengthMs + REACH_MS > durationMs || cue.atMs < BEFORE_MS + REACH_MS) return []
    const template = new Float32Array(inMs(BEFORE_MS + lengthMs))
    template.set(sound.subarray(0, template.length - inMs(BEFORE_MS)), inMs(BEFORE_MS))
    const from = inMs(cue.atMs) - inMs(BEFORE_MS + REACH_MS)
    return [{ cue, from, window: new Float32Array(template.length + 2 * inMs(REACH_MS)), template }]
  })
  const { lufs, peakDb, lengthMs } = await listen(video, listening, { facts, signal })
  const faults: Fault[] = []
  const told = { checked: listening.length, worstMs: 0 }
  for (const { cue, window, template } of listening) {
    const { at, match } = findSound(window, template)
    const offMs = ((at - inMs(REACH_MS)) * 1000) / MIX_RATE
    const what = cue.line ?? cue.sound
    const isOff = Math.abs(offMs) > LETS.cueMs
    // What is hardly like it, and elsewhere, is something else.
    const isHeard = match >= (isOff ? CLEAR_MATCH : LEAST_MATCH)
    if (!isHeard) faults.push({ kind: 'unheard', atMs: cue.atMs, found: 0, expected: 1, what })
    else if (isOff) faults.push({ kind: 'cue', atMs: cue.atMs, found: Math.round(offMs), expected: 0, what })
    if (isHeard) told.worstMs = Math.max(told.worstMs, Math.round(Math.abs(offMs) * 10) / 10)
  }
  const targetLufs = TARGETS[mix.target]
  if (targetLufs !== null && lufs !== null && Math.abs(lufs - targetLufs) > LETS.lufs)
    faults.push({ kind: 'loudness', atMs: null, found: round1(lufs), expected: targetLufs, what: '' })
  if (targetLufs !== null && peakDb > LETS.peakDb)
    faults.push({ kind: 'peak', atMs: null, found: round1(peakDb), expected: -1, what: '' })
  const loudness = { lufs: lufs === null ? null : round1(lufs), targetLufs, peakDb: round1(peakDb) }
  return { faults, cues: told, loudness, lengthMs }
}

const round1 = (value: number): number => Math.round(value * 10) / 10

/** Decodes the sound once: loudness and peak of all of it, and the samples around each cue. */
async function listen(
  video: string,
  listening: readonly Listening[],
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
    const count = block.length / channels
    for (const { from, window } of listening) {
      const begin = Math.max(from, at),
        end = Math.min(from + window.length, at + count)
      for (let sample = begin; sample < end; sample++) {
        window[sample - from] = block[(sample - at) * channels] ?? 0
      }
    }
    at += count
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
  return { lufs: integrated(meter.finish().energy), peakDb: levelOf(highest), lengthMs: (at * 1000) / MIX_RATE }
}
