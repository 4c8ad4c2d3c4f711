// What a phone does to a session: its small loudspeaker, its microphone that turns itself up and down, and its file.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { RATE } from './sounds'

/** Nothing low, nothing very high, and one pitch that it likes. */
export function throughSpeaker(sound: Float32Array): Float32Array {
  const radius = 0.9,
    turn = 2 * radius * Math.cos((2 * Math.PI * 2900) / RATE)
  let base = 0,
    smooth = 0,
    one = 0,
    two = 0
  return sound.map((sample) => {
    base += 0.25 * (sample - base)
    smooth += 0.8 * (sample - base - smooth)
    const ring = 0.15 * smooth + turn * one - radius * radius * two
    two = one
    one = ring
    return smooth + ring
  })
}

const RAISES_S = 0.8,
  LOWERS_S = 0.02
const MEANT = 0.12
const MOST_GAIN = 8

/** A microphone that turns itself down at once where it is loud, and slowly up again. */
export function throughMicrophone(sound: Float32Array): Float32Array {
  let level = MEANT
  return sound.map((sample) => {
    const loud = Math.abs(sample)
    level += (loud - level) / (RATE * (loud > level ? LOWERS_S : RAISES_S))
    return Math.max(-1, Math.min(1, sample * Math.min(MOST_GAIN, MEANT / Math.max(1e-4, level)) * 0.5))
  })
}

/** Written as AAC at 64 kbit/s, and read again. */
export function throughFile(sound: Float32Array): Float32Array {
  const folder = mkdtempSync(join(tmpdir(), 'jivet-phone-'))
  const raw = ['-f', 'f32le', '-ar', String(RATE), '-ac', '1']
  const quiet = ['-v', 'error', '-nostdin']
  try {
    const file = join(folder, 'take.m4a')
    execFileSync('ffmpeg', [...quiet, ...raw, '-i', 'pipe:0', '-ar', '44100', '-c:a', 'aac', '-b:a', '64k', file], {
      input: Buffer.from(sound.buffer, sound.byteOffset, sound.byteLength),
    })
    const read = execFileSync('ffmpeg', [...quiet, '-i', file, ...raw, 'pipe:1'], { maxBuffer: 2 ** 30 })
    const samples = new Float32Array(new Uint8Array(read).buffer, 0, read.length >> 2)
    const out = new Float32Array(sound.length)
    out.set(samples.subarray(0, out.length))
    return out
  } finally {
    rmSync(folder, { recursive: true })
  }
}
