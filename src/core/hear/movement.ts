// Movement: how much changes from one small picture to the next, and where it becomes several times as much, or as
// little. Work begins with a leap in it, holds do not; it says where something began or ended, and never what.
import type { EvidenceOf } from '../evidence'
import { SECOND, type Ms, type Share } from '../units'

/** Grey pictures of this size, so many a second; what a recorder's noise does to them is averaged away. */
export const SMALL_PICTURE = { width: 96, height: 54, rate: 5 }
const FRAME_BYTES = SMALL_PICTURE.width * SMALL_PICTURE.height
const FRAME_MS: Ms = SECOND / SMALL_PICTURE.rate
/** Of 255: less than this is noise. */
const NOISE = 3
/** What is before an instant is held against what is after it, so far to either side. */
const BESIDE = 3 * SMALL_PICTURE.rate
/** Leaps no closer than this, in pictures, are one. */
const APART = 2 * SMALL_PICTURE.rate
/** More of the picture than this never moves by itself: the light changed, or the camera was cut or turned. */
const WHOLE_PICTURE = 40
/** Movement becomes this many times as much, or as little. */
const LEAST_LEAP = Math.log(2)
/** A leap this much further than the least is as strong as can be, but for e^-1. */
const LEAP_SCALE = Math.log(3)
/** How far a leap is from the instant at which somebody meant to begin. */
const MOVEMENT_SPREAD_MS: Ms = 800
/** Nothing moves less than this: what stands still does not stand stiller. */
const STILL = 0.02

export class MovementListener {
  private before: Uint8Array | null = null
  /** How much each picture differs from the one before it, on average of all its pixels; five numbers a second. */
  private readonly energies: number[] = []

  /** @param picture grey, 0 to 255, row by row, as large as `SMALL_PICTURE`; one after another from instant 0 on. */
  push(picture: Uint8Array): void {
    const { before } = this
    let sum = 0
    for (let at = 0; before && at < FRAME_BYTES; at++) {
      const moved = Math.abs((picture[at] ?? 0) - (before[at] ?? 0))
      if (moved > NOISE) sum += moved - NOISE
    }
    const energy = sum / FRAME_BYTES
    this.energies.push(energy > WHOLE_PICTURE ? (this.energies.at(-1) ?? 0) : energy)
    this.before = picture.slice()
  }

  /** Ends the recording. @returns where movement begins and ends, in order of time. */
  finish(): EvidenceOf<'motion'>[] {
    const leaps = leapsOf(this.energies)
    return leaps.flatMap((leap, at): EvidenceOf<'motion'>[] => {
      const far = Math.abs(leap)
      if (far < LEAST_LEAP || !isPeak(leaps, at)) return []
      const strength: Share = 1 - Math.exp(-(far - LEAST_LEAP) / LEAP_SCALE)
      return [{ kind: 'motion', atMs: at * FRAME_MS, spreadMs: MOVEMENT_SPREAD_MS, strength, begins: leap > 0 }]
    })
  }
}

/** By how much, as a logarithm, movement after each picture is more than before it; 0 too near to either end. */
function leapsOf(energies: readonly number[]): number[] {
  const sums = [0]
  for (const energy of energies) sums.push((sums.at(-1) ?? 0) + energy)
  const mean = (from: number, to: number): number => ((sums[to] ?? 0) - (sums[from] ?? 0)) / (to - from)
  return energies.map((_, at) =>
    at < BESIDE || at > energies.length - BESIDE
      ? 0
      : Math.log((STILL + mean(at, at + BESIDE)) / (STILL + mean(at - BESIDE, at))),
  )
}

/** Whether no leap near it is further; of several alike it is the first. */
function isPeak(leaps: readonly number[], at: number): boolean {
  const far = Math.abs(leaps[at] ?? 0)
  for (let other = Math.max(0, at - APART); other <= Math.min(leaps.length - 1, at + APART); other++) {
    const beside = Math.abs(leaps[other] ?? 0)
    if (beside > far || (beside === far && other < at)) return false
  }
  return true
}
