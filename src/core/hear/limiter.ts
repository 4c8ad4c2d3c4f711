// Makes what sounds as loud at every pitch: tones, and everything else that is louder than its neighbours, are made as
// soft as these, and these as soft as all others. Sweeps, whose energy lies evenly over a band, stand out then.
import FFT from 'fft.js'
import type { Hertz, Samples } from '../units'

const SIZE: Samples = 2048
const HOP: Samples = SIZE / 2
/** Bins that are held against their median, which one loud tone does not move, and how much louder each may be. */
const GROUP = 24
const MOST = 1.5
/** Less than this is silence, and stays so. */
const FLOOR = 1e-4

export class Limiter {
  private readonly fft = new FFT(SIZE)
  /** Applied before and after, so that halves that overlap add up to what was. */
  private readonly window = Float64Array.from({ length: SIZE }, (_, index) =>
    Math.sin((Math.PI * (index + 0.5)) / SIZE),
  )
  private readonly history = new Float64Array(SIZE)
  private readonly windowed = new Float64Array(SIZE)
  private readonly spectrum = this.fft.createComplexArray()
  private readonly back = this.fft.createComplexArray()
  private readonly powers = new Float64Array(GROUP)
  private readonly sum = new Float64Array(SIZE)
  private readonly low: number
  private readonly high: number
  private filled: Samples = HOP
  private begun = false

  /** @param onBlock called with what passed, in order, from the first sample on; the array is used again. */
  constructor(
    rate: Hertz,
    lowHz: Hertz,
    highHz: Hertz,
    private readonly onBlock: (block: Float64Array) => void,
  ) {
    this.low = Math.floor((lowHz * SIZE) / rate)
    this.high = Math.ceil((highHz * SIZE) / rate)
  }

  push(samples: Float32Array): void {
    for (let at = 0; at < samples.length;) {
      const part = samples.subarray(at, at + SIZE - this.filled)
      this.history.set(part, this.filled)
      this.filled += part.length
      at += part.length
      if (this.filled === SIZE) this.pass()
    }
  }

  /** Ends the recording: what is held passes, with silence after it. */
  finish(): void {
    this.history.fill(0, this.filled)
    this.pass()
  }

  private pass(): void {
    const { fft, window, history, windowed, spectrum, back, sum } = this
    for (let index = 0; index < SIZE; index++) windowed[index] = (history[index] as number) * (window[index] as number)
    fft.realTransform(spectrum, windowed)
    this.limit(spectrum)
    fft.completeSpectrum(spectrum)
    fft.inverseTransform(back, spectrum)
    for (let index = 0; index < SIZE; index++)
      sum[index] = (sum[index] as number) + (back[2 * index] as number) * (window[index] as number)
    // The first half comes before the recording.
    if (this.begun) this.onBlock(sum.subarray(0, HOP))
    this.begun = true
    sum.copyWithin(0, HOP).fill(0, HOP)
    history.copyWithin(0, HOP)
    this.filled = HOP
  }

  private limit(spectrum: number[]): void {
    spectrum.fill(0, 0, 2 * this.low).fill(0, 2 * this.high, SIZE + 2)
    for (let from = this.low; from < this.high; from += GROUP) {
      const to = Math.min(this.high, from + GROUP)
      const powers = this.powers.subarray(0, to - from)
      for (let index = 0; index < powers.length; index++) {
        const re = spectrum[2 * (from + index)] as number,
          im = spectrum[2 * (from + index) + 1] as number
        powers[index] = re * re + im * im
      }
      const usual = Math.max(FLOOR ** 2, powers.toSorted()[powers.length >> 1] ?? 0)
      const gain = 1 / Math.sqrt(usual)
      for (let index = 0; index < powers.length; index++) {
        const power = powers[index] as number
        const held = power > MOST ** 2 * usual ? MOST / Math.sqrt(power) : gain
        const bin = 2 * (from + index)
        spectrum[bin] = (spectrum[bin] as number) * held
        spectrum[bin + 1] = (spectrum[bin + 1] as number) * held
      }
    }
  }
}
