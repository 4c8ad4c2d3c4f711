// What a sound is made of over time, as the ear groups it: the logarithm of the power in 40 bands, every 10 ms.
import FFT from 'fft.js'
import type { Hertz, Ms, Samples } from '../units'

export const MEL_BANDS = 40
export const MEL_STEP_MS: Ms = 10
/** The rate that samples come at. */
export const MEL_RATE: Hertz = 16_000

const WINDOW: Samples = 400
const HOP: Samples = 160
const SIZE: Samples = 512
const LOWEST_HZ: Hertz = 60
const HIGHEST_HZ: Hertz = 7600
/** Power of a band below which nothing is heard. */
const FLOOR = 1e-6
/** What sounds all the time fades from hearing: each band is held against its mean over about this long. */
const HABIT_FRAMES = 300

const melOf = (hz: Hertz): number => 1127 * Math.log1p(hz / 700)
const hzOf = (mel: number): Hertz => 700 * Math.expm1(mel / 1127)

interface Band {
  from: number
  weights: Float64Array
}

/** Triangles that overlap by half, evenly spaced in mel. */
const BANDS: readonly Band[] = Array.from({ length: MEL_BANDS }, (_, at) => {
  const step = (melOf(HIGHEST_HZ) - melOf(LOWEST_HZ)) / (MEL_BANDS + 1)
  const bin = (place: number): number => (hzOf(melOf(LOWEST_HZ) + place * step) * SIZE) / MEL_RATE
  const low = bin(at),
    top = bin(at + 1),
    high = bin(at + 2)
  const from = Math.ceil(low)
  const weights = Float64Array.from({ length: Math.max(1, Math.ceil(high) - from) }, (__, index) =>
    Math.max(0, Math.min((from + index - low) / (top - low), (high - from - index) / (high - top))),
  )
  return { from, weights }
})

/** Fed block by block. Frame `n` is centred on `n * MEL_STEP_MS + 12.5` ms. */
export class MelListener {
  private readonly fft = new FFT(SIZE)
  private readonly hann = Float64Array.from(
    { length: WINDOW },
    (_, index) => 0.5 - 0.5 * Math.cos((2 * Math.PI * index) / WINDOW),
  )
  private readonly windowed = new Array<number>(SIZE).fill(0)
  private readonly spectrum = this.fft.createComplexArray()
  private readonly history = new Float32Array(WINDOW)
  private heard: Samples = 0
  private frames = 0
  private readonly mean = new Float64Array(MEL_BANDS)
  private readonly frame = new Float32Array(MEL_BANDS)

  /** @param onFrame called with each frame in turn; the array is used again: copy what is to be kept. */
  constructor(private readonly onFrame: (frame: Float32Array) => void) {}

  push(samples: Float32Array): void {
    for (const sample of samples) {
      this.history[this.heard % WINDOW] = sample
      this.heard++
      if (this.heard >= WINDOW && (this.heard - WINDOW) % HOP === 0) this.analyse()
    }
  }

  private analyse(): void {
    const { windowed, history, hann, spectrum, mean, frame, heard } = this
    for (let index = 0; index < WINDOW; index++)
      windowed[index] = (history[(heard + index) % WINDOW] ?? 0) * (hann[index] ?? 0)
    this.fft.realTransform(spectrum, windowed)
    // At first, all that was heard so far; later, what was heard of late.
    const share = 1 / Math.min(HABIT_FRAMES, ++this.frames)
    BANDS.forEach(({ from, weights }, band) => {
      let power = FLOOR
      for (let index = 0; index < weights.length; index++) {
        const re = spectrum[2 * (from + index)] ?? 0,
          im = spectrum[2 * (from + index) + 1] ?? 0
        power += (weights[index] ?? 0) * (re * re + im * im)
      }
      const log = Math.log(power)
      mean[band] = (mean[band] ?? 0) + share * (log - (mean[band] ?? 0))
      frame[band] = (log - (mean[band] ?? 0)) / 3
    })
    this.onFrame(frame)
  }
}
