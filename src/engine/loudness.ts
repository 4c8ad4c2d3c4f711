// How loud a file is, from step to step, kept under the hash of its contents.
import { LoudnessMeter, type Steps } from '../core/sound/loudness'
import { MIX_RATE } from '../core/sound/mix'
import { BYTES_A_STEP, packSteps, unpackSteps } from '../core/sound/steps'
import { Cache } from './cache'
import { footageInput, patience } from './input'
import type { FootageFacts } from './probe'
import type { RecordedFile } from './renderJob'
import { Shared } from './shared'
import { sampleReader } from './samples'
import { COPY_TIMES, soundOnTime } from './timebase'
import { runTool } from './tool'
import type { Ms } from '../core/units'

const VERSION = 3

/** @returns steps of the file's own time, from 0 on; null where it has no sound. */
export async function loudnessOf({ path, facts }: RecordedFile, signal?: AbortSignal): Promise<Steps | null> {
  if (facts.audioCodec === null) return null
  return measured({
    input: [...COPY_TIMES, ...footageInput(path)],
    // What leaps beyond the end of the footage is no part of it, however far it leaps.
    filter: `${soundOnTime(facts)},atrim=end=${facts.durationMs / 1000}`,
    channels: channelsOf(facts.audioChannels),
    limitMs: patience(facts.durationMs, 30),
    signal,
  })
}

interface Measuring {
  /** Arguments that open it, for ffmpeg. */
  input: readonly string[]
  filter: string
  channels: 1 | 2
  limitMs: Ms
  signal?: AbortSignal | undefined
}

/** How loud the first sound of an input is, at `MIX_RATE`. */
export async function measured({ input, filter, channels, limitMs, signal }: Measuring): Promise<Steps> {
  const meter = new LoudnessMeter(MIX_RATE, channels)
  const samplesIn = sampleReader(channels)
  await runTool(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', ...input, '-map', '0:a:0', '-vn', '-sn', '-dn', '-af', filter],
      ...['-ac', String(channels), '-ar', String(MIX_RATE), '-f', 'f32le', 'pipe:1'],
    ],
    { ...(signal ? { signal } : {}), limitMs, onOutput: (chunk) => meter.add(samplesIn(chunk)) },
  )
  return meter.finish()
}

/** A mix has one channel or two. */
export const channelsOf = (channels: FootageFacts['audioChannels']): 1 | 2 => (channels === 1 ? 1 : 2)

export const LOUDNESS = `loudness-${VERSION}`
const kept = new Cache(LOUDNESS, { mostBytes: 500e6, leastBytes: BYTES_A_STEP })

/** The same, measured once for files of the same contents. */
export const loudnessOnce = (file: RecordedFile & { hash: string }, signal?: AbortSignal): Promise<Steps | null> =>
  measuredOnce(file.hash, (signal) => loudnessOf(file, signal), signal)

const measuring = new Shared<Steps | null>()

/**
 * @param key another for whatever is measured otherwise.
 * @param measure is run once for all that ask at the same time, and given up when all of them have gone.
 */
export async function measuredOnce(
  key: string,
  measure: (signal: AbortSignal) => Promise<Steps | null>,
  signal?: AbortSignal,
): Promise<Steps | null> {
  const known = await kept.recall(key)
  if (known && known.length % BYTES_A_STEP === 0) return unpackSteps(known)
  return measuring.once(
    key,
    async (all) => {
      const steps = await measure(all)
      if (steps) await kept.keep(key, packSteps(steps))
      return steps
    },
    signal,
  )
}
