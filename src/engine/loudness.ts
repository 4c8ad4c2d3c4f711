// How loud a file is, from step to step, kept under the hash of its contents.
import { randomUUID } from 'node:crypto'
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { LoudnessMeter } from '../core/sound/loudness'
import { MIX_RATE } from '../core/sound/mix'
import { cacheFolder } from './cache'
import { footageInput, patience } from './input'
import type { FootageFacts } from './probe'
import type { RecordedFile } from './renderJob'
import { sampleReader } from './samples'
import { COPY_TIMES, soundOnTime } from './timebase'
import { runTool } from './tool'

const VERSION = 1

/** @returns K-weighted energies in steps of the file's own time, from 0 on; null where it has no sound. */
export async function loudnessOf({ path, facts }: RecordedFile, signal?: AbortSignal): Promise<Float32Array | null> {
  if (facts.audioCodec === null) return null
  const channels = channelsOf(facts.audioChannels)
  const meter = new LoudnessMeter(MIX_RATE, channels)
  const samplesIn = sampleReader(channels)
  await runTool(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', ...COPY_TIMES, ...footageInput(path), '-map', '0:a:0', '-vn', '-sn', '-dn'],
      ...['-af', soundOnTime(facts), '-ac', String(channels), '-ar', String(MIX_RATE), '-f', 'f32le', 'pipe:1'],
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

/** The same, measured once for files of the same contents. */
export async function loudnessOnce(file: RecordedFile & { hash: string }): Promise<Float32Array | null> {
  const kept = join(cacheFolder(`loudness-${VERSION}`), file.hash)
  const known = await readFile(kept).catch(() => null)
  if (known && known.length % 4 === 0) return new Float32Array(new Uint8Array(known).buffer)
  const energies = await loudnessOf(file)
  if (energies) {
    await mkdir(cacheFolder(`loudness-${VERSION}`), { recursive: true })
    const made = `${kept}.${randomUUID()}`
    await writeFile(made, new Uint8Array(energies.buffer, energies.byteOffset, energies.byteLength))
    await rename(made, kept)
  }
  return energies
}
