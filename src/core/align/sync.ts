// The seam between hearing and what follows: evidence in, stitches and a summary out, in the contract's words.
import { timerBeeps } from '../hear/timerBeeps'
import type { Beep } from '../hear/tones'
import type { Segment } from '../score/segment'
import type { Ms, Ppm } from '../units'
import { alignBeeps, type Stitch } from './alignBeeps'
import { boundariesOf, fitClock, tieKey } from './boundaries'

export interface SyncStitch extends Stitch {
  plannedMs: Ms
  /** How far the footage stands from where the fitted clock would put this boundary. */
  errorMs: Ms
}

export interface SyncResult {
  stitches: SyncStitch[]
  /** Segments whose start was not found. */
  missing: string[]
  summary: { offsetMs: Ms; driftPpm: Ppm; worstErrorMs: Ms; footageMs: Ms }
}

/** @param beeps every tone heard, in order of time. @param footageMs length of the footage. */
export function syncByBeeps(segments: readonly Segment[], beeps: readonly Beep[], footageMs: Ms): SyncResult {
  return describeSync(segments, alignBeeps(boundariesOf(segments), timerBeeps(beeps)), footageMs)
}

/** The contract's report for stitches of any origin. */
export function describeSync(segments: readonly Segment[], stitches: readonly Stitch[], footageMs: Ms): SyncResult {
  const boundaries = boundariesOf(segments)
  const fit = fitClock(boundaries, stitches)
  const planned = new Map(boundaries.map((boundary) => [tieKey(boundary), boundary.plannedMs]))
  const found = new Set(stitches.filter((stitch) => stitch.edge === 'start').map((stitch) => stitch.segmentId))
  const measured = stitches.map((stitch): SyncStitch => {
    const plannedMs = planned.get(tieKey(stitch)) ?? 0
    const expected = fit.offsetMs + plannedMs * (1 + fit.driftPpm / 1e6)
    return { ...stitch, plannedMs, errorMs: Math.round(stitch.footageMs - expected) }
  })
  return {
    stitches: measured,
    missing: boundaries
      .filter((one) => one.edge === 'start' && one.audible && !found.has(one.segmentId))
      .map((one) => one.segmentId),
    summary: {
      offsetMs: Math.round(fit.offsetMs),
      driftPpm: Math.round(fit.driftPpm * 10) / 10,
      worstErrorMs: measured.reduce((worst, one) => Math.max(worst, Math.abs(one.errorMs)), 0),
      footageMs,
    },
  }
}
