// The seam between hearing and what follows: evidence in, stitches and a summary out, in the contract's words.
import { ofKind, type Evidence, type EvidenceKind } from '../evidence'
import { timerBeeps } from '../hear/timerBeeps'
import type { Segment } from '../score/segment'
import type { Ms, Ppm } from '../units'
import { alignBeeps } from './alignBeeps'
import { boundariesOf, tieKey } from './boundaries'
import { fitClock } from './clock'
import type { Stitch, Tie } from './ties'

/** A stitch as it is reported. */
export interface SyncStitch extends Tie {
  row: number
  confidence: number
  evidence: EvidenceKind[]
  plannedMs: Ms
  /** How far the footage stands from where the fitted clock would put this boundary. */
  errorMs: Ms
}

export interface SyncSummary {
  offsetMs: Ms
  driftPpm: Ppm
  worstErrorMs: Ms
  footageMs: Ms
}

export interface SyncResult {
  stitches: SyncStitch[]
  /** Segments whose start was not found. */
  missing: string[]
  summary: SyncSummary
}

/** What was found, as it may be kept, and the report of it. */
export type Aligned = SyncResult & { found: Stitch[] }

/** @param evidence in order of time. @throws Problem `too-many` where there is too much to match. */
export const stitchByEvidence = (segments: readonly Segment[], evidence: readonly Evidence[]): Stitch[] =>
  alignBeeps(boundariesOf(segments), timerBeeps(ofKind(evidence, 'beep')))

/** The contract's report for stitches of any origin. @param footageMs length of the footage. */
export function describeSync(segments: readonly Segment[], stitches: readonly Stitch[], footageMs: Ms): SyncResult {
  const boundaries = boundariesOf(segments)
  const fit = fitClock(boundaries, stitches)
  const known = new Map(boundaries.map((boundary) => [tieKey(boundary), boundary]))
  const found = new Set(stitches.filter((stitch) => stitch.edge === 'start').map((stitch) => stitch.segmentId))
  const measured = stitches.flatMap(({ origin: _origin, ...stitch }): SyncStitch[] => {
    const boundary = known.get(tieKey(stitch))
    if (!boundary) return []
    const { row, plannedMs } = boundary
    const expected = fit.offsetMs + plannedMs * (1 + fit.driftPpm / 1e6)
    return [{ ...stitch, row, plannedMs, errorMs: Math.round(stitch.footageMs - expected) }]
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
