// How loud a file is, from step to step, kept under the hash of its contents.
import { LoudnessMeter, type Steps } from '../core/sound/loudness'
import { MIX_RATE } from '../core/sound/mix'
import { BYTES_A_STEP, packSteps, unpackSteps } from '../core/sound/steps'
import { Cache } from './cache'
import { footageInput, patience } from './input'
import type { FootageFacts } from './probe'
import type { RecordedFile } from './renderJob'
import { sampleReader } from './samples'
import { COPY_TIMES, soundOnTime } from './timebase'
import { runTool } from './tool'

const VERSION = 3

/** @returns steps of the file's own time, from 0 on; null where it has no sound. */
export async function loudnessOf({ path, facts }: RecordedFile, signal?: AbortSignal): Promise<Steps | null> {
  if (facts.audioCodec === null) return null
  const channels = channelsOf(facts.audioChannels)
  const meter = new LoudnessMeter(MIX_RATE, channels)
  const samplesIn = sampleReader(channels)
  await runTool(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', ...COPY_TIMES, ...footageInput(path), '-map', '0:a:0', '-vn', '-sn', '-dn'],
      // What leaps beyond the end of the footage is no part of it, however far it leaps.
      ...[
        '-af',
        `${soundOnTime(facts)},atrim=end=${facts.durationMs / 1000}`,
        '-ac',
        String(channels),
        '-ar',
        String(MIX_RATE),
        '-f',
        'f32le',
        'pipe:1',
      ],
    ],
    {
      ...(signal ? { signal } : {}),
      limitMs: patience(facts.durationMs, 30),
      onOutput: (chunk) => meter.add(samplesIn(chunk)),
    },
  )
  return meter.finish()
}

/** A mix has one channel or two. */
export const channelsOf = (channels: FootageFacts['audioChannels']): 1 | 2 => (channels === 1 ? 1 : 2)

export const LOUDNESS = `loudness-${VERSION}`
const kept = new Cache(LOUDNESS)

/** The same, measured once for files of the same contents. */
export async function loudnessOnce(file: RecordedFile & { hash: string }): Promise<Steps | null> {
  const known = await kept.recall(file.hash)
  if (known && known.length % BYTES_A_STEP === 0) return unpackSteps(known)
  const steps = await loudnessOf(file)
  if (steps) await kept.keep(file.hash, packSteps(steps))
  return steps
}
