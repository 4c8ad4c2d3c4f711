// What a rendered video was found to be, against what it should be. Found by decoding it: `engine/verify`.
import type { Decibel, Lufs } from '../sound/loudness'
import type { Ms, Samples } from '../units'

/** What is wrong, in order of harm. */
export const FAULTS = [
  'length',
  'count',
  'picture',
  'cue',
  'apart',
  'unheard',
  'loudness',
  'peak',
  'black',
  'frozen',
] as const
/** A video that has one of these is not what was asked for; the others may be as somebody chose them. */
export const FAILURES: ReadonlySet<Fault['kind']> = new Set(['length', 'count', 'picture', 'cue', 'apart'])
export interface Fault {
  kind: (typeof FAULTS)[number]
  /** In output time; null where it is of the whole. */
  atMs: Ms | null
  /** Of what is black or frozen its length in ms. */
  found: number
  expected: number
  /** What it is about: a count, a tone or a line. */
  what: string
}

export interface Verified {
  ok: boolean
  lengthMs: Ms
  expectedMs: Ms
  /** How many changes of the count were looked at, and how far the worst was off, in pictures. */
  counts: { checked: number; worstFrames: number }
  /** The same of tones and lines, in ms. */
  cues: { checked: number; worstMs: Ms }
  loudness: { lufs: Lufs | null; targetLufs: Lufs | null; peakDb: Decibel }
  faults: readonly Fault[]
}

/** What is let pass: a picture, ten milliseconds, a loudness unit. */
export const LETS = { frames: 1, cueMs: 10, lufs: 1, peakDb: -0.9, lengthMs: 100, apartMs: 50 } as const

/** A sound that is hardly there was not found; one that is elsewhere has to be plainly there. */
export const LEAST_MATCH = 0.2
export const CLEAR_MATCH = 0.5

/**
 * Where a sound begins in a window of samples, by normalised correlation.
 * @param sound with the silence before it: what dies away is like its own beginning at any later instant.
 * @returns the offset of the sound's first sample in the window, and how well it matched (1 is alone and exact).
 */
export function findSound(window: Float32Array, sound: Float32Array): { at: Samples; match: number } {
  const last = window.length - sound.length
  const places = (from: Samples, to: Samples, step: Samples): Samples[] =>
    Array.from(
      { length: Math.floor((Math.min(last, to) - Math.max(0, from)) / step) + 1 },
      (_, n) => Math.max(0, from) + n * step,
    )
  const bestOf = (all: readonly Samples[], every: Samples): { at: Samples; match: number } =>
    all
      .map((at) => ({ at, match: matchAt(window, sound, at, every) }))
      .reduce((best, one) => (one.match > best.match ? one : best))
  const near = bestOf(places(0, last, COARSE), SKIPPED)
  return bestOf(places(near.at - COARSE, near.at + COARSE, 1), 1)
}

/** A sixth of a turn of the highest pitch that is looked for. */
const COARSE: Samples = 6
/** Of so many samples one is compared at first. */
const SKIPPED: Samples = 5

function matchAt(window: Float32Array, sound: Float32Array, at: Samples, every: Samples): number {
  let product = 0,
    ours = 0,
    theirs = 0
  for (let index = 0; index < sound.length; index += every) {
    const own = sound[index] ?? 0,
      sample = window[at + index] ?? 0
    product += sample * own
    ours += own * own
    theirs += sample * sample
  }
  return product / Math.sqrt(ours * theirs || 1)
}

/** Which of two pictures one is nearer to: below 0 the first, above it the second. */
export function nearerTo(seen: Uint8Array, first: Uint8Array, second: Uint8Array, places: readonly number[]): number {
  let toward = 0,
    whole = 0
  for (const at of places) {
    const one = first[at] ?? 0,
      other = second[at] ?? 0
    toward += ((seen[at] ?? 0) - (one + other) / 2) * (other - one)
    whole += (other - one) ** 2
  }
  return whole ? toward / whole : 0
}

/** The mean difference of two pictures at some places, in grey levels. */
export function unlikeness(seen: Uint8Array, wanted: Uint8Array, places: readonly number[]): number {
  let sum = 0
  for (const at of places) sum += Math.abs((seen[at] ?? 0) - (wanted[at] ?? 0))
  return places.length ? sum / places.length : 0
}
