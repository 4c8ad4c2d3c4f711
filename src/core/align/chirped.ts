// Ties that chirps make: each bears the place of its change in the score. A chirp cannot be taken for another, but a
// footage may be of another score; then the lengths between its chirps are not those that were planned.
import type { EvidenceOf } from '../evidence'
import type { Segment } from '../score/segment'
import type { Ms, Ppm } from '../units'
import { boundariesOf } from './boundaries'
import { longestRising } from './rising'
import type { Tie } from './ties'

/** The floor's clock against the camera's, and what a loudspeaker waits. */
const OFF_MS: Ms = 60
const OFF_PPM: Ppm = 1000
/** Of the lengths by the clock between chirps so many are as planned; the floor may have been held. */
const LEAST_AGREEING = 0.5

interface Placed {
  /** Place of the boundary in the score. */
  at: number
  atMs: Ms
}

/**
 * @param chirps in order of time.
 * @returns ties in order of the score; none where the chirps are not of this score, or there is no telling.
 */
export function chirpTies(segments: readonly Segment[], chirps: readonly EvidenceOf<'chirp'>[]): Tie[] {
  const boundaries = boundariesOf(segments)
  const placed = chirps
    .filter(({ code }) => code > 0 && code <= boundaries.length)
    .map(({ code, atMs }): Placed => ({ at: code - 1, atMs }))
  const rising = following(placed)
  if (!areOfThisScore(segments, rising)) return []
  return rising.flatMap(({ at, atMs }) => {
    const boundary = boundaries[at]
    return boundary ? [{ segmentId: boundary.segmentId, edge: boundary.edge, footageMs: Math.round(atMs) }] : []
  })
}

/** The most that follow one another in the score; of what was done twice, the first: it is looked for from the end. */
const following = (placed: readonly Placed[]): Placed[] =>
  longestRising(placed.toReversed(), ({ at }) => -at, false).reverse()

function areOfThisScore(segments: readonly Segment[], placed: readonly Placed[]): boolean {
  const agree = placed.slice(1).flatMap((one, index): boolean[] => {
    const from = placed[index]
    const between = from ? segments.slice(from.at, one.at) : []
    if (!from || !between.every(({ kind, pace }) => pace === 'fixed' && (kind === 'work' || kind === 'rest'))) return []
    const plannedMs = between.reduce((sum, { durationMs }) => sum + durationMs, 0)
    return [Math.abs(one.atMs - from.atMs - plannedMs) <= OFF_MS + (plannedMs * OFF_PPM) / 1e6]
  })
  return agree.filter(Boolean).length >= Math.max(1, LEAST_AGREEING * agree.length)
}

/** A chirp's tie holds to a millisecond or two. */
export const CHIRP_SIGMA_MS: Ms = 1
