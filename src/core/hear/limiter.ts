// Takes what stands out of a band: tones and everything else that is louder than its neighbours in pitch are made as
// soft as these. Sweeps, whose energy lies evenly over the band, pass.
import FFT from 'fft.js'
import type { Hertz, Samples } from '../units'

const SIZE: Samples = 2048
const HOP: Samples = SIZE / 2
/** Bins that are held against their median, which one loud tone does not move, and how much louder each may be. */
const GROUP = 24
const MOST = 1.5

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
    for (const sample of samples) {
      this.history[this.filled++] = sample
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
      const levels = Float64Array.from({ length: to - from }, (_, index) =>
        Math.hypot(spectrum[2 * (from + index)] ?? 0, spectrum[2 * (from + index) + 1] ?? 0),
      )
      const most = MOST * (levels.toSorted()[levels.length >> 1] ?? 0)
      levels.forEach((level, index) => {
        if (level <= most) return
        const bin = 2 * (from + index)
        spectrum[bin] = ((spectrum[bin] ?? 0) * most) / level
        spectrum[bin + 1] = ((spectrum[bin + 1] ?? 0) * most) / level
      })
    }
  }
}
