// Hears coded chirps by matched filters: first the rising sweep that leads each one, then its 24 bits, then when it
// began, from all of it together. Fed block by block; works at a fixed amount of memory.
import FFT from 'fft.js'
import type { EvidenceOf } from '../evidence'
import {
  chipAt,
  CHIRP_BANDS,
  CHIRP_CODES,
  CHIRP_MS,
  CHIRP_VOICES,
  codeword,
  LEAD,
  sweepsOf,
  sweepWave,
  type ChirpVoice,
  type Quadrature,
} from '../sound/chirp'
import type { Ms, Samples, Share } from '../units'
import { Limiter } from './limiter'
import { HEARING_RATE } from './tones'

export type Chirp = EvidenceOf<'chirp'>

const CHIPS = 24
const PER_MS = HEARING_RATE / 1000
const SIZE: Samples = 8192
const LEAD_SAMPLES: Samples = LEAD.lengthMs * PER_MS
/** Samples held: those of a block's search, and the longest chirp after it. */
const TAIL: Samples = Math.ceil((CHIRP_MS + 10) * PER_MS)
const HELD: Samples = SIZE + TAIL

/** A lead is looked into where this share of what sounds there is a rising sweep; chance gives a 290th on average. */
const LEAST_LEAD: Share = 0.06
/** What 24 chips say together for a number: chance reaches 0.4 at most, a chirp 15 dB below what sounds 0.7. */
const LEAST_SAID = 1.2
/** And by so much more than for the next number. */
const LEAST_CLEARER = 0.25
/** Clocks differ: a chip may be this far from its place. */
const REACH: Samples = 2
/** How much of what sounds says that this is the number, at which it is as strong as can be told. */
const PLAIN = 4
/** Standard deviation of a chirp's beginning: measured on takes of the split "tune". */
const SPREAD_MS: Ms = 0.3

/** For every number, +1 or -1 a chip. */
const CODEWORDS: readonly Int8Array[] = Array.from({ length: CHIRP_CODES }, (_, code) =>
  Int8Array.from(codeword(code), (rises) => (rises ? 1 : -1)),
)

export class ChirpListener {
  private readonly bands: readonly BandListener[] = CHIRP_VOICES.map((voice) => new BandListener(voice))

  /** @param samples mono, -1..1, at `HEARING_RATE`; blocks follow one another without gaps. */
  push(samples: Float32Array): void {
    for (const band of this.bands) band.push(samples)
  }

  /** Ends the recording. @returns every chirp heard, in order of time. */
  finish(): Chirp[] {
    const all = this.bands.flatMap((band) => band.finish()).sort((one, other) => one.atMs - other.atMs)
    return all.reduce(withoutOverlap, [])
  }
}

class BandListener {
  private readonly fft = new FFT(SIZE)
  private readonly limiter: Limiter
  /** Of the lead as a complex wave, its cosine and its sine. */
  private readonly lead: Spectrum
  private readonly product = this.fft.createComplexArray()
  private readonly correlated = this.fft.createComplexArray()
  private readonly rising: Quadrature
  private readonly falling: Quadrature
  private readonly held = new Float64Array(HELD)
  private filled: Samples = 0
  /** Of the first sample held, in the recording. */
  private from: Samples = 0
  private readonly found: Chirp[] = []

  constructor(private readonly voice: ChirpVoice) {
    const band = CHIRP_BANDS[voice]
    this.limiter = new Limiter(HEARING_RATE, band.lowHz, band.highHz, (block) => this.take(block))
    const wave = sweepWave(LEAD, band, HEARING_RATE)
    const even = this.spectrumOf(wave.even),
      odd = this.spectrumOf(wave.odd)
    this.lead = even.map((part, at) => part + (at % 2 ? (odd[at - 1] ?? 0) : -(odd[at + 1] ?? 0)))
    this.rising = sweepWave(chipAt(0, true), band, HEARING_RATE)
    this.falling = sweepWave(chipAt(0, false), band, HEARING_RATE)
  }

  push(samples: Float32Array): void {
    this.limiter.push(samples)
  }

  finish(): Chirp[] {
    this.limiter.finish()
    while (this.filled > LEAD_SAMPLES) {
      this.held.fill(0, this.filled)
      this.search()
    }
    return this.found
  }

  private take(block: Float64Array): void {
    for (let at = 0; at < block.length;) {
      const part = block.subarray(at, at + HELD - this.filled)
      this.held.set(part, this.filled)
      this.filled += part.length
      at += part.length
      if (this.filled === HELD) this.search()
    }
  }

  private spectrumOf(wave: Float64Array): Spectrum {
    const padded = new Array<number>(SIZE).fill(0)
    wave.forEach((sample, index) => (padded[index] = sample))
    const out = this.fft.createComplexArray()
    this.fft.realTransform(out, padded)
    this.fft.completeSpectrum(out)
    return out
  }

  /** Leads that begin in the first part of what is held; then that part is let go. */
  private search(): void {
    const fresh = SIZE - LEAD_SAMPLES
    const shares = this.leadShares(fresh)
    for (let at = 0; at < fresh; at++) {
      const share = shares[at] ?? 0
      if (share < LEAST_LEAD || share < (shares[at - 1] ?? 0) || share <= (shares[at + 1] ?? 0)) continue
      const chirp = this.decoded(at)
      if (chirp) this.found.push(chirp)
    }
    this.held.copyWithin(0, fresh)
    this.filled = Math.max(0, this.filled - fresh)
    this.from += fresh
  }

  /** Of what sounds from each sample on, the share of its energy that is the lead. */
  private leadShares(count: number): Float64Array {
    this.correlate()
    const { held, correlated } = this
    const shares = new Float64Array(count)
    let energy = 0
    for (let at = 0; at < LEAD_SAMPLES; at++) energy += (held[at] as number) ** 2
    for (let at = 0; at < count; at++) {
      const power = (correlated[2 * at] as number) ** 2 + (correlated[2 * at + 1] as number) ** 2
      shares[at] = energy > SILENCE ? power / (energy * (LEAD_SAMPLES / 2)) : 0
      energy += (held[at + LEAD_SAMPLES] as number) ** 2 - (held[at] as number) ** 2
    }
    return shares
  }

  /** What is held with the lead, at every lag. */
  private correlate(): void {
    const { product, lead } = this
    const sound = this.spectrumOf(this.held.subarray(0, SIZE))
    for (let at = 0; at < product.length; at += 2) {
      const re = sound[at] as number,
        im = sound[at + 1] as number,
        leadRe = lead[at] as number,
        leadIm = lead[at + 1] as number
      product[at] = re * leadRe + im * leadIm
      product[at + 1] = im * leadRe - re * leadIm
    }
    this.fft.inverseTransform(this.correlated, product)
  }

  private decoded(at: Samples): Chirp | null {
    const said = Float64Array.from({ length: CHIPS }, (_, place) => this.chipAt(at, place))
    let best = 0,
      most = -Infinity,
      next = -Infinity
    CODEWORDS.forEach((signs, code) => {
      let sum = 0
      for (let place = 0; place < CHIPS; place++) sum += (signs[place] as number) * (said[place] as number)
      if (sum > most) [next, most, best] = [most, sum, code]
      else if (sum > next) next = sum
    })
    if (most < LEAST_SAID || most - next < LEAST_CLEARER) return null
    const atMs = (this.from + this.begins(at, best)) / PER_MS
    return {
      kind: 'chirp',
      code: best,
      atMs: Math.max(0, atMs),
      spreadMs: SPREAD_MS,
      strength: Math.min(1, most / PLAIN),
    }
  }

  /** From -1, it falls, to 1, it rises. */
  private chipAt(at: Samples, place: number): number {
    const from = at + chipAt(place, true).fromMs * PER_MS
    const length = this.rising.even.length
    let energy = 0
    for (let index = 0; index < length; index++) energy += (this.held[from + index] ?? 0) ** 2
    if (energy <= SILENCE) return 0
    let rises = 0,
      falls = 0
    for (let off = -REACH; off <= REACH; off++) {
      rises = Math.max(rises, powerAt(this.held, from + off, this.rising))
      falls = Math.max(falls, powerAt(this.held, from + off, this.falling))
    }
    return (rises - falls) / (energy * (length / 2))
  }

  /** The sample, with a fraction, at which the whole of a chirp fits best: the peak of a parabola. */
  private begins(at: Samples, code: number): number {
    const whole = wholeWave(code, this.voice)
    const powers = Array.from({ length: 2 * NEAR + 1 }, (_, index) => powerAt(this.held, at + index - NEAR, whole))
    const peak = powers.indexOf(Math.max(...powers))
    const [before = 0, most = 0, after = 0] = [peak - 1, peak, peak + 1].map((index) => powers[index] ?? 0)
    const bend = before - 2 * most + after
    return at + peak - NEAR + (bend < 0 ? (before - after) / (2 * bend) : 0)
  }
}

/** No two sound at once: of those that overlap, also where one voice is faintly heard as the other, the plainer stays. */
function withoutOverlap(kept: Chirp[], chirp: Chirp): Chirp[] {
  const last = kept.at(-1)
  if (!last || chirp.atMs - last.atMs > CHIRP_MS) return [...kept, chirp]
  return chirp.strength > last.strength ? [...kept.slice(0, -1), chirp] : kept
}

type Spectrum = number[]
const SILENCE = 1e-9
/** A beginning is looked for this far from where the lead was found. */
const NEAR: Samples = 8

function powerAt(sound: Float64Array, from: Samples, { even, odd }: Quadrature): number {
  let re = 0,
    im = 0
  for (let index = 0; index < even.length; index++) {
    const sample = sound[from + index] ?? 0
    re += sample * (even[index] as number)
    im += sample * (odd[index] as number)
  }
  return re * re + im * im
}

function wholeWave(code: number, voice: ChirpVoice): Quadrature {
  const length = Math.round(CHIRP_MS * PER_MS)
  const whole = { even: new Float64Array(length), odd: new Float64Array(length) }
  for (const sweep of sweepsOf(code)) {
    const wave = sweepWave(sweep, CHIRP_BANDS[voice], HEARING_RATE)
    whole.even.set(wave.even, sweep.fromMs * PER_MS)
    whole.odd.set(wave.odd, sweep.fromMs * PER_MS)
  }
  return whole
}
