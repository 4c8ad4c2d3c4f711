// How high a sampled sound really rises: between its samples too, found by sampling it four times as often, as
// ITU-R BS.1770-5 annex 2 does.
const PHASES = 4
/** Samples that a point between two is reckoned from. */
const TAPS = 12

/** For each of the three points between two samples, what each neighbour has a part of: a sinc under a Hann window. */
const FILTERS: readonly Float64Array[] = Array.from({ length: PHASES - 1 }, (_, index) => {
  const offset = (index + 1) / PHASES
  const taps = Float64Array.from({ length: TAPS }, (_one, tap) => {
    const x = tap - (TAPS / 2 - 1) - offset
    const sinc = x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x)
    return sinc * (0.5 + 0.5 * Math.cos((Math.PI * x) / (TAPS / 2)))
  })
  const sum = taps.reduce((total, one) => total + one, 0)
  return taps.map((one) => one / sum)
})
/** Between samples that are all lower than a ceiling by this factor, nothing rises above it. */
const RISES_AT_MOST = 2

/** Finds peaks of one channel, sample by sample. Told `LATENCY` samples late. */
export class PeakFinder {
  static readonly LATENCY = TAPS / 2
  private readonly past = new Float64Array(TAPS)
  private at = 0
  private lastHigh = TAPS

  /** @param ceiling what stays below half of it is not looked at closely. */
  constructor(private readonly ceiling: number) {}

  /** @returns the highest between the sample that came `LATENCY` ago and the next one, both among them. */
  next(sample: number): number {
    this.past[this.at] = sample
    this.at = (this.at + 1) % TAPS
    this.lastHigh = Math.abs(sample) * RISES_AT_MOST > this.ceiling ? 0 : this.lastHigh + 1
    const own = Math.max(Math.abs(this.ago(TAPS / 2)), Math.abs(this.ago(TAPS / 2 - 1)))
    if (this.lastHigh >= TAPS) return own
    let most = own
    for (const filter of FILTERS) {
      let value = 0
      for (let tap = 0; tap < TAPS; tap++) value += (filter[tap] ?? 0) * this.ago(TAPS - 1 - tap)
      most = Math.max(most, Math.abs(value))
    }
    return most
  }

  private ago(samples: number): number {
    return this.past[(this.at + 2 * TAPS - 1 - samples) % TAPS] ?? 0
  }
}

/** The highest of a whole sound. @param samples interleaved. */
export function truePeakOf(samples: Float32Array, channels = 1): number {
  let most = 0
  for (let channel = 0; channel < channels; channel++) {
    const finder = new PeakFinder(0)
    for (let at = channel; at < samples.length; at += channels) most = Math.max(most, finder.next(samples[at] ?? 0))
    for (let rest = 0; rest < PeakFinder.LATENCY; rest++) most = Math.max(most, finder.next(0))
  }
  return most
}
