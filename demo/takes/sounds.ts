// Sounds of a simulated room at 16 kHz: timers, chimes, music, hum, and the room's answer to them. All
// made here; none is a recording.
import { seededRandom } from '../camera/random'
import { addFrom } from '../camera/wave'

export const RATE = 16_000

export const mix = (into: Float32Array, sound: Float32Array, atMs: number, gain: number): void =>
  addFrom(into, sound, Math.round((atMs / 1000) * RATE), gain)

/** Hands a sound to a listener, a second at a time. */
export function feed(listener: { push: (samples: Float32Array) => void }, sound: Float32Array): void {
  for (let at = 0; at < sound.length; at += RATE) listener.push(sound.subarray(at, at + RATE))
}

/** A steady tone with soft edges and a weaker octave above it. */
export function tone(hz: number, lengthMs: number, overtone = 0.15): Float32Array {
  const out = new Float32Array(Math.round((lengthMs / 1000) * RATE))
  return out.map((_, index) => {
    const ms = (index / RATE) * 1000
    const turn = (2 * Math.PI * hz * index) / RATE
    return Math.min(1, ms / 2, (lengthMs - ms) / 6) * (Math.sin(turn) + overtone * Math.sin(2 * turn))
  })
}

/** Struck metal: it begins at once and fades. */
export function chime(hz: number, lengthMs: number): Float32Array {
  const out = new Float32Array(Math.round((lengthMs / 1000) * RATE))
  return out.map((_, index) => {
    const seconds = index / RATE
    const partial = (ratio: number, fade: number): number =>
      Math.sin(2 * Math.PI * hz * ratio * seconds) * Math.exp(-seconds * fade)
    return 0.6 * partial(1, 3) + 0.3 * partial(2.01, 5) + 0.15 * partial(2.94, 8)
  })
}

export function hum(length: number, level: number, seed: number): Float32Array {
  const random = seededRandom(seed)
  const mains = 44 + random() * 20
  let low = 0
  return new Float32Array(length).map((_, index) => {
    low += 0.06 * (random() * 2 - 1 - low)
    const turn = (2 * Math.PI * mains * index) / RATE
    return level * (0.4 * Math.sin(turn) + 0.15 * Math.sin(2 * turn) + low)
  })
}

/** Chords, a beat and a lead whose notes lie where timers beep; another tempo, key and tune for every seed. */
export function music(length: number, seed: number): Float32Array {
  const random = seededRandom(seed)
  const out = new Float32Array(length)
  const beatMs = 60_000 / (90 + random() * 60)
  const root = 100 + random() * 60
  const scale = [0, 2, 4, 7, 9, 12, 14, 16]
  const hzOf = (octave: number, step: number): number => root * 2 ** octave * 2 ** ((scale[step % 8] ?? 0) / 12)
  const endMs = (length / RATE) * 1000
  const hits = new Map<string, Float32Array>()
  const hit = (name: string, make: () => Float32Array): Float32Array => {
    const known = hits.get(name) ?? make()
    hits.set(name, known)
    return known
  }
  for (let beat = 0; beat * beatMs < endMs; beat++) {
    const atMs = beat * beatMs
    if (beat % 4 === 0)
      for (const step of [0, 2, 3]) {
        const chord = Math.floor(beat / 4) % 4
        mix(
          out,
          hit(`c${chord}${step}`, () => tone(hzOf(1, step + chord), beatMs * 3.9, 0.5)),
          atMs,
          0.07,
        )
      }
    mix(
      out,
      hit(beat % 2 ? 'snare' : 'kick', () => drum(beat % 2 === 1, seed)),
      atMs,
      0.3,
    )
    for (const half of [0, 0.5])
      if (random() < 0.55) {
        const step = Math.floor(random() * 8)
        mix(
          out,
          hit(`l${step}`, () => tone(hzOf(3, step), beatMs * 0.45, 0.4)),
          atMs + half * beatMs,
          0.1,
        )
      }
  }
  return out
}

function drum(snare: boolean, seed: number): Float32Array {
  const random = seededRandom(seed + 7)
  return new Float32Array(Math.round(0.16 * RATE)).map((_, index) => {
    const seconds = index / RATE
    const body = Math.sin(2 * Math.PI * (snare ? 190 : 60 + 60 * Math.exp(-seconds * 40)) * seconds)
    return (snare ? 0.4 * body + 0.6 * (random() * 2 - 1) : body) * Math.exp(-seconds * (snare ? 25 : 18))
  })
}

/** The room's answer: reflections that fade by 60 dB in `seconds`. */
export function inRoom(dry: Float32Array, seconds: number, wet: number): Float32Array {
  const out = Float32Array.from(dry)
  for (const ms of [29.7, 37.1, 41.1, 43.7]) {
    const delay = Math.round((ms / 1000) * RATE)
    const keep = 10 ** ((-3 * ms) / 1000 / seconds)
    const line = new Float32Array(delay)
    for (let index = 0, at = 0; index < dry.length; index++, at = (at + 1) % delay) {
      const back = line[at] ?? 0
      line[at] = (dry[index] ?? 0) + back * keep
      out[index] = (out[index] ?? 0) + wet * 0.25 * back
    }
  }
  return out
}

/** Level of a sound as the root of its mean square, over where it is not silent. */
export function levelOf(sound: Float32Array): number {
  let sum = 0,
    count = 0
  for (const sample of sound)
    if (Math.abs(sample) > 1e-4) {
      sum += sample * sample
      count++
    }
  return Math.sqrt(sum / Math.max(1, count))
}
