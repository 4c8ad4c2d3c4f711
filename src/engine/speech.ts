// Says a line aloud, by the synthesiser that stands on this machine: for the coach's ear on the floor, and for nobody
// else.
import { mkdtemp, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Problem } from '../core/problem'
import { runTool } from './tool'

const VOICE = 'slt'
const LIMIT_MS = 10_000
/** Head of a WAV file: what has no more says nothing. */
const HEAD_BYTES = 44

/** @returns a WAV file, mono. @throws Problem `tool-missing`, `tool-failed`, `tool-slow` or `cancelled`. */
export async function spoken(text: string, signal?: AbortSignal): Promise<Buffer> {
  // The synthesiser writes to files only: what a process is given as its output is a socket, which it cannot open.
  const folder = await mkdtemp(join(tmpdir(), 'jivet-said-'))
  try {
    const file = join(folder, 'line.wav')
    await runTool('flite', ['-voice', VOICE, '-t', text, '-o', file], {
      ...(signal ? { signal } : {}),
      limitMs: LIMIT_MS,
    })
    const wave = await readFile(file)
    if (wave.length <= HEAD_BYTES) throw new Problem({ code: 'tool-failed', tool: 'flite', reason: 'it said nothing' })
    return wave
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}
