// Hears coded chirps by matched filters: first the rising sweep that leads each one, then its 24 bits, then when it
// began, from all of it together. Fed block by block; works at a fixed amount of memory.
import FFT from 'fft.js'
import { byTime, type EvidenceOf } from '../evidence'
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
/** Of what is held, where a lead may begin. */
const FRESH: Samples = SIZE - LEAD_SAMPLES

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
/** Standard deviation of a chirp's beginning; measured through a simulated phone it is below this. */
const SPREAD_MS: Ms = 0.3

/** For every number, +1 or -1 a chip. */
const CODEWORDS: readonly Int8Array[] = Array.from({ length: CHIRP_CODES }, (_, code) =>
  Int8Array.from(codeword(code), (rises) => (rises ? 1 : -1)),
)

const LOWEST_HZ = Math.min(...CHIRP_VOICES.map((voice) => CHIRP_BANDS[voice].lowHz))
const HIGHEST_HZ = Math.max(...CHIRP_VOICES.map((voice) => CHIRP_BANDS[voice].highHz))

export class ChirpListener {
  private readonly fft = new FFT(SIZE)
  private readonly limiter = new Limiter(HEARING_RATE, LOWEST_HZ, HIGHEST_HZ, (block) => this.take(block))
  private readonly filters = CHIRP_VOICES.map((voice) => new ChirpFilter(voice, this.fft))
  private readonly held = new Float64Array(HELD)
  private filled: Samples = 0
  /** Of the first sample held, in the recording. */
  private from: Samples = 0
  private readonly found: Chirp[] = []

  /** @param samples mono, -1..1, at `HEARING_RATE`; blocks follow one another without gaps. */
  push(samples: Float32Array): void {
    this.limiter.push(samples)
  }

  /** Ends the recording. @returns every chirp heard, in order of time. */
  finish(): Chirp[] {
    this.limiter.finish()
    while (this.filled > LEAD_SAMPLES) {
      this.held.fill(0, this.filled)
      this.search()
    }
    return this.found.sort(byTime).reduce(withoutOverlap, [])
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

  /** Leads that begin in the first part of what is held; then that part is let go. */
  private search(): void {
    const spectrum = spectrumOf(this.fft, this.held.subarray(0, SIZE))
    const energies = energiesOf(this.held, FRESH)
    for (const filter of this.filters)
      for (const { begins, code, said } of filter.chirpsIn(this.held, spectrum, energies)) {
        const atMs = Math.max(0, (this.from + begins) / PER_MS)
        this.found.push({ kind: 'chirp', code, atMs, spreadMs: SPREAD_MS, strength: Math.min(1, said / PLAIN) })
      }
    this.held.copyWithin(0, FRESH)
    this.filled = Math.max(0, this.filled - FRESH)
    this.from += FRESH
  }
}

type Spectrum = number[]

function spectrumOf(fft: FFT, wave: Float64Array): Spectrum {
  const padded = new Array<number>(SIZE).fill(0)
  for (let index = 0; index < wave.length; index++) padded[index] = wave[index] as number
  const out = fft.createComplexArray()
  fft.realTransform(out, padded)
  fft.completeSpectrum(out)
  return out
}

/** Of what sounds from each of the first samples on, over the length of a lead. */
function energiesOf(sound: Float64Array, count: number): Float64Array {
  const energies = new Float64Array(count)
  let energy = 0
  for (let at = 0; at < LEAD_SAMPLES; at++) energy += (sound[at] as number) ** 2
  for (let at = 0; at < count; at++) {
    energies[at] = energy
    energy += (sound[at + LEAD_SAMPLES] as number) ** 2 - (sound[at] as number) ** 2
  }
  return energies
}

/** In samples of what is held; `said` is what its chips say together for its number. */
interface Found {
  begins: number
  code: number
  said: number
}

/** Finds the chirps of one voice. */
class ChirpFilter {
  /** Of the lead as a complex wave, its cosine and its sine. */
  private readonly lead: Spectrum
  private readonly product: Spectrum
  private readonly correlated: Spectrum
  private readonly rising: Quadrature
  private readonly falling: Quadrature
  private held: Float64Array = new Float64Array(0)

  constructor(
    private readonly voice: ChirpVoice,
    private readonly fft: FFT,
  ) {
    const band = CHIRP_BANDS[voice]
    const wave = sweepWave(LEAD, band, HEARING_RATE)
    const even = spectrumOf(fft, wave.even),
      odd = spectrumOf(fft, wave.odd)
    this.lead = even.map((part, at) => part + (at % 2 ? (odd[at - 1] ?? 0) : -(odd[at + 1] ?? 0)))
    this.product = fft.createComplexArray()
    this.correlated = fft.createComplexArray()
    this.rising = sweepWave(chipAt(0, true), band, HEARING_RATE)
    this.falling = sweepWave(chipAt(0, false), band, HEARING_RATE)
  }

  /** @param energies of what sounds from each sample on at which a chirp may begin. */
  chirpsIn(held: Float64Array, spectrum: Spectrum, energies: Float64Array): Found[] {
    this.held = held
    this.correlate(spectrum)
    const { correlated } = this
    const share = (at: number): Share => {
      const energy = energies[at] ?? 0
      if (energy <= SILENCE) return 0
      return (
        ((correlated[2 * at] as number) ** 2 + (correlated[2 * at + 1] as number) ** 2) / (energy * (LEAD_SAMPLES / 2))
      )
    }
    const found: Found[] = []
    let before = 0,
      here = share(0)
    for (let at = 0; at < energies.length; at++) {
      const after = share(at + 1)
      const chirp = here >= LEAST_LEAD && here >= before && here > after ? this.decoded(at) : null
      if (chirp) found.push(chirp)
      before = here
      here = after
    }
    return found
  }

  /** The lead with what sounds, at every lag. */
  private correlate(spectrum: Spectrum): void {
    const { product, lead } = this
    for (let at = 0; at < product.length; at += 2) {
      const re = spectrum[at] as number,
        im = spectrum[at + 1] as number,
        leadRe = lead[at] as number,
        leadIm = lead[at + 1] as number
      product[at] = re * leadRe + im * leadIm
      product[at + 1] = im * leadRe - re * leadIm
    }
    this.fft.inverseTransform(this.correlated, product)
  }

  private decoded(at: Samples): Found | null {
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
    return { begins: this.begins(at, best), code: best, said: most }
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

/** No two sound at once: where one voice is faintly heard as the other too, the plainer stays. */
function withoutOverlap(kept: Chirp[], chirp: Chirp): Chirp[] {
  const last = kept.at(-1)
  if (!last || chirp.atMs - last.atMs > CHIRP_MS) return [...kept, chirp]
  return chirp.strength > last.strength ? [...kept.slice(0, -1), chirp] : kept
}

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
