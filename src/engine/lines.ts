// The lines of a session in one voice: how long each lasts, and how it sounds.
import { readFile } from 'node:fs/promises'
import type { VoiceName } from '../core/cue/wishes'
import type { Ms } from '../core/units'
import { saidAloud, saidMs, waveMs, waveSamples, type SpokenVoice } from './voices'

export interface LinesAloud {
  lengths: Map<string, Ms>
  samples: Map<string, Float32Array>
}

interface Options {
  /** Files of lines that the coach recorded, as `trimmedLine` leaves them. */
  recordings?: ReadonlyMap<string, string> | undefined
  signal?: AbortSignal | undefined
}

/** So many are spoken beside each other. */
const AT_ONCE = 2

async function eachOf(lines: readonly string[], work: (line: string) => Promise<void>): Promise<void> {
  const waiting = lines.values()
  const one = async (): Promise<void> => {
    for (const line of waiting) await work(line)
  }
  await Promise.all(Array.from({ length: AT_ONCE }, one))
}

/** One line as a WAV file; null for one of the coach's own that was not recorded. */
export async function lineAloud(
  voice: Exclude<VoiceName, 'none'>,
  line: string,
  { recordings, signal }: Options,
): Promise<Buffer | null> {
  if (voice !== 'own') return saidAloud(voice, line, signal)
  const path = recordings?.get(line)
  return path === undefined ? null : readFile(path)
}

/** How long lines last in a voice of this machine, without what they sound like. */
export async function spokenLengths(
  voice: SpokenVoice,
  lines: readonly string[],
  signal?: AbortSignal,
): Promise<Map<string, Ms>> {
  const lengths = new Map<string, Ms>()
  await eachOf(lines, async (line) => void lengths.set(line, await saidMs(voice, line, signal)))
  return lengths
}

/** @param voice of the coach's own, lines that were not recorded are left out. */
export async function linesAloud(
  voice: VoiceName,
  lines: readonly string[],
  { recordings = new Map(), signal }: Options = {},
): Promise<LinesAloud> {
  const aloud: LinesAloud = { lengths: new Map(), samples: new Map() }
  if (voice === 'none') return aloud
  await eachOf(lines, async (line) => {
    const wave = await lineAloud(voice, line, { recordings, signal })
    if (!wave) return
    aloud.lengths.set(line, waveMs(wave))
    aloud.samples.set(line, waveSamples(wave))
  })
  return aloud
}
