// The cue track: sounds and lines laid at their instants, handed out in blocks so that an hour needs no hour of memory.
import type { Cue } from '../cue/cue'
import type { Hertz, Ms, Samples } from '../units'
import { PEAKS_A_STEP, STEP_MS, stepsOf, type Steps } from './loudness'

/** What a cue sounds like, as mono samples at the rate of the track; null where nobody says it. */
export type Heard = (cue: Cue) => Float32Array | null

/** A track that is read from its beginning on, in blocks of any length. */
export class CueTrack {
  private readonly placed: { from: Samples; sound: Float32Array }[]
  private first = 0
  private at: Samples = 0

  /** A cue at `atMs` has its first sample at round(atMs * rate / 1000); sounds that overlap are added. */
  constructor(cues: readonly Cue[], heard: Heard, rate: Hertz) {
    this.placed = cues.flatMap((cue) => {
      const sound = heard(cue)
      return sound ? [{ from: Math.round((cue.atMs * rate) / 1000), sound }] : []
    })
  }

  /** The next samples, mono. */
  next(length: Samples): Float32Array {
    const block = new Float32Array(length)
    const start = this.at
    while (ended(this.placed[this.first], start)) this.first++
    for (let number = this.first; number < this.placed.length; number++) {
      const item = this.placed[number]
      if (!item || item.from >= start + length) break
      mixInto(block, item.sound, item.from - start)
    }
    this.at += length
    return block
  }
}

const ended = (item: { from: Samples; sound: Float32Array } | undefined, at: Samples): boolean =>
  item !== undefined && item.from + item.sound.length <= at

function mixInto(block: Float32Array, sound: Float32Array, offset: Samples): void {
  const from = Math.max(0, -offset)
  const to = Math.min(sound.length, block.length - offset)
  for (let index = from; index < to; index++) block[offset + index] = (block[offset + index] ?? 0) + (sound[index] ?? 0)
}

/** The whole track in steps of output time, reckoned from those of each sound. */
export function cueSteps(cues: readonly Cue[], heard: Heard, lengthMs: Ms, rate: Hertz): Steps {
  const length = Math.ceil(lengthMs / STEP_MS)
  const steps: Steps = { energy: new Float32Array(length), peak: new Float32Array(length * PEAKS_A_STEP) }
  const known = new Map<Float32Array, Steps>()
  for (const cue of cues) {
    const sound = heard(cue)
    if (!sound) continue
    const own = known.get(sound) ?? stepsOf(sound, rate)
    known.set(sound, own)
    const begin = Math.floor(cue.atMs / STEP_MS)
    // A step of the sound lies over two of the output.
    const later = cue.atMs / STEP_MS - begin
    own.energy.forEach((energy, at) => {
      add(steps.energy, begin + at, energy * (1 - later))
      add(steps.energy, begin + at + 1, energy * later)
    })
    const peaksFrom = (cue.atMs / STEP_MS) * PEAKS_A_STEP
    const first = Math.floor(peaksFrom)
    own.peak.forEach((peak, at) => {
      raise(steps.peak, first + at, peak)
      if (peaksFrom > first) raise(steps.peak, first + at + 1, peak)
    })
  }
  return steps
}

function add(steps: Float32Array, at: number, more: number): void {
  if (at >= 0 && at < steps.length) steps[at] = (steps[at] ?? 0) + more
}

function raise(peaks: Float32Array, at: number, to: number): void {
  if (at >= 0 && at < peaks.length) peaks[at] = Math.max(peaks[at] ?? 0, to)
}
