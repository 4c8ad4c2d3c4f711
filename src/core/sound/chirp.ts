// Coded chirps: what the floor sounds at a change, and hearing finds again in the footage. A rising sweep, then 24
// short ones that rise or fall: a number of 12 bits in the extended binary Golay code, of which any two differ in
// eight places. Sweeps pass through small loudspeakers, rooms and codecs, and stand out of speech and music.
import { SECOND, type Hertz, type Ms, type Samples } from '../units'

/** Plain to hear; or high and faint, for whoever wants no sound in the film. */
export const CHIRP_VOICES = ['plain', 'faint'] as const
export type ChirpVoice = (typeof CHIRP_VOICES)[number]

interface Band {
  lowHz: Hertz
  highHz: Hertz
  /** Amplitude, of full scale. */
  gain: number
}
/** Within what a phone's loudspeaker gives, and below half the rate that recordings are listened to at. */
export const CHIRP_BANDS: Record<ChirpVoice, Band> = {
  plain: { lowHz: 1600, highHz: 4800, gain: 0.25 },
  faint: { lowHz: 5200, highHz: 7600, gain: 0.05 },
}

const LEAD_MS: Ms = 96
export const CHIP_MS: Ms = 24
const CHIPS = 24
export const CHIRP_MS: Ms = LEAD_MS + CHIPS * CHIP_MS
const EDGE_MS: Ms = 2

/** Numbers that a chirp can bear. */
export const CHIRP_CODES = 4096
/** The session begins, and ends; the numbers between are places of changes in the score, from 1 on. */
export const START_CODE = 0
export const STOP_CODE = CHIRP_CODES - 1

/** x^11 + x^10 + x^6 + x^5 + x^4 + x^2 + 1, which generates the code (M. Golay, "Notes on digital coding", 1949). */
const GENERATOR = 0b1100_0111_0101
const PARITY_BITS = 11

/** The 24 bits of a number: itself, the remainder, and one that makes the ones even. @param code 0 to 4095. */
export function codeword(code: number): boolean[] {
  let remainder = code << PARITY_BITS
  for (let bit = CHIPS - 2; bit >= PARITY_BITS; bit--)
    if (remainder & (1 << bit)) remainder ^= GENERATOR << (bit - PARITY_BITS)
  const word = (code << PARITY_BITS) | remainder
  const bits = Array.from({ length: CHIPS - 1 }, (_, at) => ((word >> (CHIPS - 2 - at)) & 1) === 1)
  return [...bits, bits.filter(Boolean).length % 2 === 1]
}

/** One sweep: where it begins and ends in time and pitch. */
interface Sweep {
  fromMs: Ms
  lengthMs: Ms
  rises: boolean
}

export const LEAD: Sweep = { fromMs: 0, lengthMs: LEAD_MS, rises: true }
export const chipAt = (place: number, rises: boolean): Sweep => ({
  ...{ fromMs: LEAD_MS + place * CHIP_MS, lengthMs: CHIP_MS, rises },
})
export const sweepsOf = (code: number): Sweep[] => [LEAD, ...codeword(code).map((rises, place) => chipAt(place, rises))]

export interface Quadrature {
  /** Cosine and sine of the same sweep, of amplitude 1. */
  even: Float64Array
  odd: Float64Array
}

/** A sweep whose pitch runs evenly through a band. */
export function sweepWave({ lengthMs, rises }: Sweep, { lowHz, highHz }: Band, rate: Hertz): Quadrature {
  const length: Samples = Math.round((lengthMs / SECOND) * rate)
  const seconds = length / rate
  const [from, to] = rises ? [lowHz, highHz] : [highHz, lowHz]
  const phase = (index: number): number => {
    const at = index / rate
    return 2 * Math.PI * (from * at + ((to - from) * at * at) / (2 * seconds))
  }
  return {
    even: Float64Array.from({ length }, (_, index) => Math.cos(phase(index))),
    odd: Float64Array.from({ length }, (_, index) => Math.sin(phase(index))),
  }
}

/** @returns mono samples at `rate`; the change is where they begin. */
export function chirpSound(code: number, voice: ChirpVoice, rate: Hertz): Float32Array {
  const band = CHIRP_BANDS[voice]
  const out = new Float32Array(Math.round((CHIRP_MS / SECOND) * rate))
  const edge = (EDGE_MS / SECOND) * rate
  for (const sweep of sweepsOf(code)) {
    const { odd } = sweepWave(sweep, band, rate)
    const from = Math.round((sweep.fromMs / SECOND) * rate)
    odd.forEach((sample, index) => {
      const faded = Math.min(1, (index + 1) / edge, (odd.length - index) / edge)
      out[from + index] = band.gain * faded * sample
    })
  }
  return out
}
