// Keeps a sound under a ceiling, between its samples too. It sees peaks coming, goes down before them in a straight
// line and comes back slowly, so that nothing clips and nothing clicks.
import type { Hertz, Samples } from '../units'
import { gainOf, type Decibel } from './loudness'
import { PeakFinder } from './truePeak'

/** Highest level of a video, between samples too. */
const CEILING_DB: Decibel = -1
/** An encoder that loses something may rise above what it was given by about so much. */
const ENCODER_ROOM: Decibel = 1
/** What a mix is held under, in the render and in the page. */
export const CEILING = gainOf(CEILING_DB - ENCODER_ROOM)

const AHEAD_MS = 4
/** It comes back by a factor e in this time. */
export const RELEASE_MS = 120

export class Limiter {
  /** It tells every sample so much later; `finish` has the rest. */
  private readonly late: Samples
  private readonly finders: readonly PeakFinder[]
  private readonly waiting: Float32Array
  /** The least gain of the last `ahead` samples, by a queue of falling candidates. */
  private readonly least: { at: number; gain: number }[] = []
  private readonly window: Float64Array
  private windowSum: number
  private held = 1
  private at = 0
  private readonly ahead: Samples
  private readonly returns: number

  /** @param ceiling highest level of the result, above 0. */
  constructor(
    rate: Hertz,
    private readonly channels: number,
    private readonly ceiling: number,
  ) {
    this.ahead = Math.round((rate * AHEAD_MS) / 1000)
    this.late = this.ahead + PeakFinder.LATENCY - 1
    this.finders = Array.from({ length: channels }, () => new PeakFinder(ceiling))
    this.waiting = new Float32Array(this.late * channels)
    this.window = new Float64Array(this.ahead).fill(1)
    this.windowSum = this.ahead
    this.returns = 1 - Math.exp(-1000 / (rate * RELEASE_MS))
  }

  /** @param block interleaved. @returns as much as came in, `late` samples later: silence first. */
  limit(block: Float32Array): Float32Array {
    const { channels, waiting, late } = this
    const out = new Float32Array(block.length)
    for (let from = 0; from < block.length; from += channels, this.at++) {
      let peak = 0
      for (let channel = 0; channel < channels; channel++)
        peak = Math.max(peak, this.finders[channel]?.next(block[from + channel] ?? 0) ?? 0)
      const gain = this.smooth(peak > this.ceiling ? this.ceiling / peak : 1)
      const slot = (this.at % late) * channels
      for (let channel = 0; channel < channels; channel++) {
        out[from + channel] = (waiting[slot + channel] ?? 0) * gain
        waiting[slot + channel] = block[from + channel] ?? 0
      }
    }
    return out
  }

  /** What is still on its way. */
  finish(): Float32Array {
    return this.limit(new Float32Array(this.late * this.channels))
  }

  /** Samples of silence at the beginning of what it tells. */
  get latency(): Samples {
    return this.late
  }

  /** The mean over `ahead` of the least over `ahead`: as low as was needed when the peak comes out. */
  private smooth(needed: number): number {
    const { least, at, ahead, window } = this
    while ((least.at(-1)?.gain ?? -1) >= needed) least.pop()
    least.push({ at, gain: needed })
    // A peak between two samples stands over both.
    while ((least[0]?.at ?? at) < at - ahead) least.shift()
    const lowest = least[0]?.gain ?? 1
    this.held = Math.min(lowest, this.held + (1 - this.held) * this.returns)
    const slot = at % ahead
    this.windowSum += this.held - (window[slot] ?? 1)
    window[slot] = this.held
    // Rounding adds up over an hour of samples.
    if (slot === 0) this.windowSum = window.reduce((sum, one) => sum + one, 0)
    return Math.min(1, this.windowSum / ahead)
  }
}
