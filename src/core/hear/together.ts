// Whether two recordings have one sound in common, and where: two cameras in one room, or one film encoded twice. How
// the loudness of both rises and falls is laid over each other, first coarsely over the whole, then in short windows.
// Beeps of a timer, which any two sessions of one plan share, prove nothing and are left out.
import FFT from 'fft.js'
import { median, sum } from '../sum'
import type { Ms, Ppm, Share } from '../units'
import type { PeakLevel } from './peaks'
import { PEAKS_RATE } from './peaks'

/** Where one recording lies in the time of another. */
export interface Together {
  /** Instant 0 of the other in the time of the one; below 0 where the other was begun first. */
  atMs: Ms
  /** How much slower the clock of the other runs. */
  driftPpm: Ppm
  /** How much of what they have in common was found to agree. */
  agree: Share
}

export interface Recording {
  /** Its loudness, as it is kept for the waveform. */
  peaks: readonly PeakLevel[]
  /** Instants of tones that say nothing of whether it is the same sound. */
  tonesMs?: readonly Ms[]
}

/** A step of loudness, and a coarse one. */
const STEP_MS: Ms = 4
const COARSE = 10
/** Slower rises and falls than this belong to a room or an automatic level. */
const SLOW_MS: Ms = 1500
const TONE_MS = { before: 100, after: 700 }
/** Two recordings have to overlap for so long that chance does not lay them over each other. */
const LEAST_OVERLAP_MS: Ms = 20_000
const WINDOW_MS: Ms = 10_000
const MOST_WINDOWS = 160
/** How far the windows of an hour are moved by two clocks. */
const REACH_MS: Ms = 400
/** Windows that lie so near to one line agree. */
const AGREE_MS: Ms = 12
const LEAST_AGREE: Share = 0.6
const LEAST_WINDOWS = 3
/** Of two recordings of one sound, loudness goes along with loudness at least so far. */
const LEAST_LIKENESS: Share = 0.35

/** @returns null where they have nothing in common that stands out. */
export function together(one: Recording, other: Recording): Together | null {
  const a = loudnessOf(one),
    b = loudnessOf(other)
  const coarse = bestLag(thinned(a, COARSE), thinned(b, COARSE), LEAST_OVERLAP_MS / STEP_MS / COARSE)
  if (coarse === null) return null
  const found = windowsAt(a, b, coarse * COARSE)
  if (found.length < LEAST_WINDOWS) return null
  const line = lineThrough(found)
  const near = found.filter(({ at, lag }) => Math.abs(lag - line.lag - line.slope * at) * STEP_MS <= AGREE_MS)
  const agree = near.length / found.length
  if (agree < LEAST_AGREE || median(near.map(({ likeness }) => likeness)) < LEAST_LIKENESS) return null
  const exact = lineThrough(near)
  return { atMs: exact.lag * STEP_MS, driftPpm: exact.slope * 1e6, agree }
}

/** How loud it is in each step, without what changes slowly: mean 0. */
function loudnessOf({ peaks, tonesMs = [] }: Recording): Float32Array {
  const [finest] = peaks
  if (!finest) return new Float32Array(0)
  const perStep = (STEP_MS * PEAKS_RATE) / 1000 / finest.step
  const raw = Float32Array.from({ length: Math.floor(finest.pairs.length / 2 / perStep) }, (_, step) => {
    let low = 0,
      high = 0
    for (let pair = step * perStep; pair < (step + 1) * perStep; pair++) {
      low = Math.min(low, finest.pairs[pair * 2] ?? 0)
      high = Math.max(high, finest.pairs[pair * 2 + 1] ?? 0)
    }
    return Math.log1p(high - low)
  })
  const out = withoutSlow(raw, SLOW_MS / STEP_MS)
  for (const ms of tonesMs)
    out.fill(0, Math.max(0, (ms - TONE_MS.before) / STEP_MS), Math.max(0, (ms + TONE_MS.after) / STEP_MS))
  return out
}

function withoutSlow(values: Float32Array, reach: number): Float32Array {
  const total = runningSum(values, (value) => value)
  return values.map((value, at) => {
    const from = Math.max(0, at - reach),
      to = Math.min(values.length, at + reach)
    return value - ((total[to] ?? 0) - (total[from] ?? 0)) / (to - from)
  })
}

function runningSum(values: Float32Array, of: (value: number) => number): Float64Array {
  const out = new Float64Array(values.length + 1)
  values.forEach((value, at) => {
    out[at + 1] = (out[at] ?? 0) + of(value)
  })
  return out
}

const thinned = (values: Float32Array, by: number): Float32Array =>
  Float32Array.from({ length: Math.floor(values.length / by) }, (_, at) =>
    sum(Array.from(values.subarray(at * by, (at + 1) * by))),
  )

/**
 * The lag, in steps, at which the second goes along with the first best, of all at which they overlap enough.
 * `b[i]` belongs to `a[i + lag]`.
 */
function bestLag(a: Float32Array, b: Float32Array, leastOverlap: number): number | null {
  if (Math.min(a.length, b.length) < leastOverlap) return null
  const size = 2 ** Math.ceil(Math.log2(a.length + b.length))
  const fft = new FFT(size)
  const spectrumOf = (values: Float32Array): number[] => {
    const input = new Array<number>(size).fill(0)
    values.forEach((value, at) => (input[at] = value))
    const out = fft.createComplexArray()
    fft.realTransform(out, input)
    fft.completeSpectrum(out)
    return out
  }
  const first = spectrumOf(a),
    second = spectrumOf(b)
  for (let at = 0; at < first.length; at += 2) {
    const re = first[at] ?? 0,
      im = first[at + 1] ?? 0,
      otherRe = second[at] ?? 0,
      otherIm = second[at + 1] ?? 0
    first[at] = re * otherRe + im * otherIm
    first[at + 1] = im * otherRe - re * otherIm
  }
  const product = fft.createComplexArray()
  fft.inverseTransform(product, first)
  const powerA = runningSum(a, (value) => value * value),
    powerB = runningSum(b, (value) => value * value)
  let best: number | null = null,
    most = 0
  for (let lag = leastOverlap - b.length; lag <= a.length - leastOverlap; lag++) {
    const from = Math.max(0, lag),
      to = Math.min(a.length, b.length + lag)
    const power = ((powerA[to] ?? 0) - (powerA[from] ?? 0)) * ((powerB[to - lag] ?? 0) - (powerB[from - lag] ?? 0))
    // Long overlaps that agree a little weigh as much as short ones that agree well.
    const score = power > 0 ? ((product[2 * ((lag + size) % size)] ?? 0) / Math.sqrt(power)) * Math.sqrt(to - from) : 0
    if (score > most) {
      most = score
      best = lag
    }
  }
  return best
}

/** A stretch of the second: where it lies in the first, in steps. `b[at]` belongs to `a[at + lag]`. */
interface Window {
  at: number
  lag: number
  likeness: number
}

function windowsAt(a: Float32Array, b: Float32Array, lag: number): Window[] {
  const length = WINDOW_MS / STEP_MS,
    reach = REACH_MS / STEP_MS
  const from = Math.max(0, reach - lag),
    to = Math.min(b.length, a.length - lag - reach) - length
  const step = Math.max(length, Math.ceil((to - from) / MOST_WINDOWS))
  const found: Window[] = []
  for (let at = from; at <= to; at += step) {
    const window = b.subarray(at, at + length)
    const power = sum(Array.from(window, (value) => value * value))
    const likeness = (shift: number): number => {
      let product = 0,
        powerA = 0
      const begin = at + lag + shift
      for (let step = 0; step < length; step++) {
        const value = a[begin + step] ?? 0
        product += value * (window[step] ?? 0)
        powerA += value * value
      }
      return power > 0 && powerA > 0 ? product / Math.sqrt(power * powerA) : 0
    }
    let best = -reach,
      most = -1
    for (let shift = -reach; shift <= reach; shift++) {
      const here = likeness(shift)
      if (here > most) {
        most = here
        best = shift
      }
    }
    const left = likeness(best - 1),
      right = likeness(best + 1),
      bend = left - 2 * most + right
    const between = bend ? Math.max(-0.5, Math.min(0.5, (0.5 * (left - right)) / bend)) : 0
    if (most > 0) found.push({ at, lag: lag + best + between, likeness: most })
  }
  return found
}

/** The line that windows far from it do not move: the median of the slopes between them, then of what is left. */
function lineThrough(windows: readonly Window[]): { lag: number; slope: number } {
  const half = Math.floor(windows.length / 2)
  const slopes = windows.slice(half).flatMap((later, index) => {
    const earlier = windows[index]
    return earlier && later.at > earlier.at ? [(later.lag - earlier.lag) / (later.at - earlier.at)] : []
  })
  const slope = windows.length >= 2 * LEAST_WINDOWS ? median(slopes) : 0
  return { lag: median(windows.map(({ at, lag }) => lag - slope * at)), slope }
}
