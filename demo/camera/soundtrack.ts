// The simulated room's sound: speech by flite, the phone timer's beeps smeared by the cabin, engine hum and water.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { seededRandom } from './random'
import type { Session } from './session'
import { addFrom, readWave } from './wave'

export const SOUND_RATE = 48_000

/** Mono samples, -1..1, as long as the session. */
export function recordSound(session: Session, seed: number): Float32Array {
  const out = new Float32Array(Math.round((session.durationMs / 1000) * SOUND_RATE))
  addRoom(out, seededRandom(seed))
  const spoken = new Map<string, Float32Array>()
  for (const { atMs, text } of session.lines) {
    const voice = spoken.get(text) ?? speak(text)
    spoken.set(text, voice)
    add(out, voice, atMs, 0.55)
  }
  for (const { atMs, hz, lengthMs } of session.beeps) {
    const beep = tone(hz, lengthMs)
    for (const [lateMs, gain] of [
      [0, 0.2],
      [9, 0.07],
      [23, 0.045],
      [41, 0.02],
    ] as const)
      add(out, beep, atMs + lateMs, gain)
  }
  return out
}

function addRoom(out: Float32Array, random: () => number): void {
  let water = 0,
    slow = 0
  for (let index = 0; index < out.length; index++) {
    const seconds = index / SOUND_RATE
    water += 0.06 * (random() * 2 - 1 - water)
    slow += 0.00008 * (random() * 2 - 1 - slow)
    const hum =
      0.02 * Math.sin(2 * Math.PI * 47 * seconds) +
      0.008 * Math.sin(2 * Math.PI * 94.3 * seconds) +
      0.004 * Math.sin(2 * Math.PI * 141 * seconds)
    out[index] = hum + water * (0.05 + 6 * slow)
  }
}

function tone(hz: number, lengthMs: number): Float32Array {
  const samples = new Float32Array(Math.round((lengthMs / 1000) * SOUND_RATE))
  return samples.map((_, index) => {
    const ms = (index / SOUND_RATE) * 1000
    return Math.min(1, ms / 2, (lengthMs - ms) / 6) * Math.sin((2 * Math.PI * hz * index) / SOUND_RATE)
  })
}

function speak(text: string): Float32Array {
  const folder = mkdtempSync(join(tmpdir(), 'jivet-voice-'))
  try {
    const file = join(folder, 'line.wav')
    execFileSync('flite', ['-voice', 'slt', '-t', text, '-o', file])
    return readWave(file, SOUND_RATE)
  } finally {
    rmSync(folder, { recursive: true })
  }
}

const add = (out: Float32Array, sound: Float32Array, atMs: number, gain: number): void =>
  addFrom(out, sound, Math.round((atMs / 1000) * SOUND_RATE), gain)
