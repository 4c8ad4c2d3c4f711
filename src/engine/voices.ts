// Lines for viewers in the voices that stand on this machine: spoken once, trimmed and brought to one loudness, and
// kept by what is said in which voice.
import { createHash } from 'node:crypto'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { VoiceName } from '../core/cue/wishes'
import { Problem } from '../core/problem'
import { MIX_RATE } from '../core/sound/mix'
import { spokenLine } from '../core/sound/voiced'
import type { Ms } from '../core/units'
import { writeWav } from '../core/write/wav'
import { Cache } from './cache'
import { soundInput } from './input'
import { sampleReader } from './samples'
import { runTool } from './tool'

/** The voices that a machine speaks with; the coach's own is recorded. */
export type SpokenVoice = Exclude<VoiceName, 'none' | 'own'>

const SPEAKERS: Record<SpokenVoice, { tool: string; args: (text: string, out: string) => string[] }> = {
  flite: { tool: 'flite', args: (text, out) => ['-voice', 'slt', '-t', text, '-o', out] },
  espeak: { tool: 'espeak-ng', args: (text, out) => ['-v', 'en-gb', '-s', '165', '-w', out, '--', text] },
}
const LIMIT_MS: Ms = 15_000
/** Head of a WAV file that is made here. */
export const WAV_HEAD_BYTES = 44
/** Another number where the same text would sound otherwise. */
const VERSION = 1
export const SAID = `said-${VERSION}`
const kept = new Cache(SAID, { mostBytes: 500e6, leastBytes: WAV_HEAD_BYTES + 2 })

const keyOf = (voice: SpokenVoice, text: string): string =>
  createHash('sha256').update(`${voice} ${text}`).digest('hex')

/** How long `saidAloud` is; what was said before is not read for it. @throws as `saidAloud` does. */
export async function saidMs(voice: SpokenVoice, text: string, signal?: AbortSignal): Promise<Ms> {
  const bytes = await kept.bytesOf(keyOf(voice, text))
  return waveMs({ byteLength: bytes ?? (await saidAloud(voice, text, signal)).length })
}

/**
 * @returns a WAV file, mono, at `MIX_RATE`, trimmed, at the loudness of all cues.
 * @throws Problem `tool-missing`, `tool-failed`, `tool-slow` or `cancelled`.
 */
export async function saidAloud(voice: SpokenVoice, text: string, signal?: AbortSignal): Promise<Buffer> {
  const key = keyOf(voice, text)
  const known = await kept.recall(key)
  if (known) return known
  const { tool, args } = SPEAKERS[voice]
  // The synthesisers write to files only: what a process is given as its output is a socket, which they cannot open.
  const place = await mkdtemp(join(tmpdir(), 'jivet-said-'))
  try {
    const raw = join(place, 'line.wav')
    await runTool(tool, args(text, raw), { ...(signal ? { signal } : {}), limitMs: LIMIT_MS })
    const wave = await trimmedLine(raw, signal)
    if (!wave) throw new Problem({ code: 'tool-failed', tool, reason: 'it said nothing' })
    await kept.keep(key, wave)
    return wave
  } finally {
    await rm(place, { recursive: true, force: true })
  }
}

/** @returns a recording as a line like all others; null where nothing is said in it. @throws Problem `tool-failed`. */
export async function trimmedLine(path: string, signal?: AbortSignal): Promise<Buffer | null> {
  const line = spokenLine(await decodedMono(path, signal), MIX_RATE)
  return line.length ? Buffer.from(writeWav([line], MIX_RATE)) : null
}

/** The longest line that is taken. */
export const LONGEST_LINE_MS: Ms = 30_000

async function decodedMono(path: string, signal?: AbortSignal): Promise<Float32Array> {
  const raw = await runTool(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', ...soundInput(path), '-map', '0:a:0'],
      ...['-t', String(LONGEST_LINE_MS / 1000), '-ac', '1', '-ar', String(MIX_RATE), '-f', 'f32le', 'pipe:1'],
    ],
    { ...(signal ? { signal } : {}), limitMs: 2 * LIMIT_MS },
  )
  return sampleReader(1)(raw)
}

/** How long such a WAV file is. */
export const waveMs = (wave: { byteLength: number }): Ms => ((wave.byteLength - WAV_HEAD_BYTES) / 2 / MIX_RATE) * 1000

/** The samples of such a WAV file. */
export function waveSamples(wave: Buffer): Float32Array {
  const count = (wave.length - WAV_HEAD_BYTES) / 2
  return Float32Array.from({ length: count }, (_, at) => wave.readInt16LE(WAV_HEAD_BYTES + at * 2) / 32_767)
}
