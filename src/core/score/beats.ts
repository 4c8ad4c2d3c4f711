// Moving on the beat: tempos at which lengths are whole bars, reps at a tempo, and what to change to make a tempo fit.
import type { Ms } from '../units'

const MINUTE_MS = 60_000
/** Off a whole bar by less than this is not heard at any tempo in use. */
const EXACT_BARS = 1e-6

export interface TempoFit {
  bpm: number
  /** Whole bars of each length, in the order given. */
  bars: number[]
}

const gcd = (one: number, other: number): number => (other ? gcd(other, one % other) : one)

const barMs = (bpm: number, beatsPerBar: number): number => (beatsPerBar * MINUTE_MS) / bpm

/**
 * Tempos in beats a minute at which every length is a whole number of bars.
 * A bar must divide the greatest common divisor of all lengths, so there is one candidate for each number of bars in
 * it.
 * @param lengthsMs lengths above nothing; others are left out.
 */
export function temposFor(lengthsMs: readonly Ms[], { beatsPerBar = 4, low = 80, high = 180 } = {}): TempoFit[] {
  const lengths = lengthsMs.filter((ms) => ms > 0)
  const shared = lengths.reduce((so, ms) => gcd(so, ms), 0)
  if (!shared || beatsPerBar < 1) return []
  const fits: TempoFit[] = []
  for (let bars = Math.max(1, Math.ceil((low * shared) / (beatsPerBar * MINUTE_MS) - EXACT_BARS)); ; bars++) {
    const bpm = (bars * beatsPerBar * MINUTE_MS) / shared
    if (bpm > high + EXACT_BARS) return fits
    if (bpm >= low - EXACT_BARS) fits.push({ bpm, bars: lengths.map((ms) => Math.round((ms / shared) * bars)) })
  }
}

/** Whole reps in an interval when each takes so many beats. */
export const repsAtTempo = (ms: Ms, bpm: number, beatsPerRep: number): number =>
  bpm > 0 && beatsPerRep > 0 ? Math.floor((ms * bpm) / (MINUTE_MS * beatsPerRep) + EXACT_BARS) : 0

export interface LengthChange {
  ms: Ms
  /** The nearest length that is whole bars, to the millisecond. */
  fittedMs: Ms
  bars: number
}

/** What every length would have to become for a wanted tempo; at least one bar each. */
export function changesForTempo(lengthsMs: readonly Ms[], bpm: number, beatsPerBar = 4): LengthChange[] {
  const bar = barMs(bpm, beatsPerBar)
  return lengthsMs.map((ms) => {
    const bars = Math.max(1, Math.round(ms / bar))
    return { ms, fittedMs: Math.round(bars * bar), bars }
  })
}
