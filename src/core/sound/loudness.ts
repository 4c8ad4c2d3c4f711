// How loud a sound is to people: ITU-R BS.1770-5, as K-weighted energy in steps of 100 ms, out of which loudness is
// told for any part of it. Energies of sounds that have nothing to do with each other add up, so a mix can be reckoned
// before it is made.
import type { Hertz, Ms, Samples } from '../units'

/** Loudness units relative to full scale; about -70 to 0. */
export type Lufs = number
/** A difference of two of them, or of levels. */
export type Decibel = number

export const STEP_MS: Ms = 100
/** A block is 400 ms, three quarters of it shared with the one before. */
const STEPS_A_BLOCK = 4
const ABSOLUTE_GATE: Lufs = -70
const RELATIVE_GATE: Decibel = -10
const OFFSET: Decibel = -0.691

export const gainOf = (level: Decibel): number => 10 ** (level / 20)
export const levelOf = (gain: number): Decibel => 20 * Math.log10(Math.max(gain, 1e-10))
/** Of a mean square, channels summed. */
export const lufsOf = (energy: number): Lufs => OFFSET + 10 * Math.log10(Math.max(energy, 1e-12))
export const energyOf = (lufs: Lufs): number => 10 ** ((lufs - OFFSET) / 10)

/** A step has so many peaks, so that what a limiter does can be reckoned. */
export const PEAKS_A_STEP = 10

/** A sound in steps of `STEP_MS`: the K-weighted energy of each, and `PEAKS_A_STEP` times how high its samples rise. */
export interface Steps {
  energy: Float32Array
  peak: Float32Array
}

/** One K-weighted channel: a shelf that stands for the head, then a high-pass, as two filters of second order. */
class Weighting {
  private readonly shelf: Biquad
  private readonly pass: Biquad
  constructor(rate: Hertz) {
    this.shelf = shelfAt(rate)
    this.pass = passAt(rate)
  }
  next(sample: number): number {
    return this.pass.next(this.shelf.next(sample))
  }
}

class Biquad {
  private first = 0
  private second = 0
  constructor(
    private readonly b: readonly [number, number, number],
    private readonly a: readonly [number, number],
  ) {}
  next(sample: number): number {
    const [b0, b1, b2] = this.b
    const [a1, a2] = this.a
    const out = b0 * sample + this.first
    this.first = b1 * sample - a1 * out + this.second
    this.second = b2 * sample - a2 * out
    return out
  }
}

/** The standard gives coefficients for 48 kHz; these analogue values yield them there, and the same curve elsewhere. */
function shelfAt(rate: Hertz): Biquad {
  const k = Math.tan((Math.PI * 1681.974450955533) / rate),
    q = 0.7071752369554196,
    high = 10 ** (3.999843853973347 / 20),
    band = high ** 0.4996667741545416
  const a0 = 1 + k / q + k * k
  return new Biquad(
    [(high + (band * k) / q + k * k) / a0, (2 * (k * k - high)) / a0, (high - (band * k) / q + k * k) / a0],
    [(2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0],
  )
}

function passAt(rate: Hertz): Biquad {
  const k = Math.tan((Math.PI * 38.13547087602444) / rate),
    q = 0.5003270373238773
  const a0 = 1 + k / q + k * k
  return new Biquad([1, -2, 1], [(2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0])
}

/** Measures a sound that comes in blocks. */
export class LoudnessMeter {
  private readonly weightings: readonly Weighting[]
  private readonly step: Samples
  private readonly peakEvery: Samples
  private readonly energies: number[] = []
  private readonly peaks: number[] = []
  private sum = 0
  private peak = 0
  private count: Samples = 0

  constructor(
    rate: Hertz,
    private readonly channels: number,
  ) {
    this.step = Math.round((rate * STEP_MS) / 1000)
    this.peakEvery = Math.floor(this.step / PEAKS_A_STEP)
    this.weightings = Array.from({ length: channels }, () => new Weighting(rate))
  }

  /** @param block interleaved, in whole frames. */
  add(block: Float32Array): void {
    const { channels } = this
    for (let at = 0; at < block.length; at += channels) {
      for (let channel = 0; channel < channels; channel++) {
        const sample = block[at + channel] ?? 0
        const weighted = this.weightings[channel]?.next(sample) ?? 0
        this.sum += weighted * weighted
        this.peak = Math.max(this.peak, Math.abs(sample))
      }
      this.count++
      if (this.count % this.peakEvery === 0 && this.peaks.length % PEAKS_A_STEP < PEAKS_A_STEP - 1) this.closePeak()
      if (this.count === this.step) this.close()
    }
  }

  /** What is shorter than a step at the end is one too. */
  finish(): Steps {
    if (this.count > 0) this.close()
    return { energy: Float32Array.from(this.energies), peak: Float32Array.from(this.peaks) }
  }

  private close(): void {
    this.energies.push(this.sum / this.count)
    this.sum = 0
    this.count = 0
    do this.closePeak()
    while (this.peaks.length % PEAKS_A_STEP)
  }

  private closePeak(): void {
    this.peaks.push(this.peak)
    this.peak = 0
  }
}

/**
 * Integrated loudness, gated twice: quiet blocks are no part of it.
 * @param energies of steps.
 * @returns null where all is silence, or shorter than one block.
 */
export function integrated(energies: Float32Array): Lufs | null {
  const blocks = new Float64Array(Math.max(0, energies.length - STEPS_A_BLOCK + 1))
  for (let at = 0; at < blocks.length; at++) {
    let sum = 0
    for (let step = 0; step < STEPS_A_BLOCK; step++) sum += energies[at + step] ?? 0
    blocks[at] = sum / STEPS_A_BLOCK
  }
  const loud = meanAbove(blocks, ABSOLUTE_GATE)
  if (loud === null) return null
  const gated = meanAbove(blocks, Math.max(ABSOLUTE_GATE, lufsOf(loud) + RELATIVE_GATE))
  return gated === null ? null : lufsOf(gated)
}

function meanAbove(blocks: Float64Array, gate: Lufs): number | null {
  const least = energyOf(gate)
  let sum = 0,
    count = 0
  for (const energy of blocks) {
    if (energy <= least) continue
    sum += energy
    count++
  }
  return count ? sum / count : null
}

/** The steps of a sound that is there whole. */
export function stepsOf(samples: Float32Array, rate: Hertz, channels = 1): Steps {
  const meter = new LoudnessMeter(rate, channels)
  meter.add(samples)
  return meter.finish()
}

/** Their energies alone. */
export const energiesOf = (samples: Float32Array, rate: Hertz, channels = 1): Float32Array =>
  stepsOf(samples, rate, channels).energy

/** Loudness of the loudest step: what a short tone is to the ear. */
export const loudestStep = (energies: Float32Array): Lufs =>
  lufsOf(energies.reduce((most, one) => Math.max(most, one), 0))
