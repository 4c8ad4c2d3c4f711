// The seam between hearing and what follows: evidence in, stitches and a summary out, in the contract's words.
import { ofKind, type EvidenceKind } from '../evidence'
import type { Segment } from '../score/segment'
import type { Ms, Ppm, Share } from '../units'
import { boundariesOf, tieKey } from './boundaries'
import { calibrated } from './calibration'
import { CHIRP_SIGMA_MS, chirpTies } from './chirped'
import { fitClock } from './clock'
import { decode, type Recording } from './decode'
import { doneOf } from './notDone'
import { longestRising } from './rising'
import { holdBeside, placesOf, wasNotDone, type Stitch, type Tie } from './ties'

/** A tie that was heard, with what stands for and against it. */
export interface FoundStitch extends Stitch {
  /** Standard deviation of its time. */
  sigmaMs: Ms
  /** Other places of the same change, likeliest first. */
  alternatives: { footageMs: Ms; confidence: Share }[]
}

/** A stitch as it is reported; what was heard carries what stands for and against it. */
export interface SyncStitch extends Tie, Partial<Pick<FoundStitch, 'sigmaMs' | 'alternatives'>> {
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
export type Aligned = SyncResult & Matched

export interface Matched {
  found: FoundStitch[]
  /** How probable it is that what was heard marks changes of this score at all. */
  likeness: Share
  /** What was heard may be another session's that shares intervals with this one: no tie is sure. */
  doubtful: boolean
}

/** Below this a footage does not sound like the score. */
export const LEAST_LIKENESS: Share = 0.5
/** Below this a tie is a guess, and what is guessed is not tied. */
const LEAST_TIED: Share = 0.5
/** What a tie is worth at most where the session may be another one. */
const DOUBTED: Share = 0.5

/**
 * The changes that were heard, with how probable each is. A boundary that nothing was heard of stays open.
 * @param hands ties that hold whatever was heard; what was not done is not looked for.
 * @throws Problem `too-many` where there is too much to match.
 */
export function matchEvidence(segments: readonly Segment[], recording: Recording, hands: readonly Tie[] = []): Matched {
  const done = doneOf(segments, hands)
  if (done !== segments)
    return matchEvidence(
      done,
      recording,
      hands.filter((tie) => !wasNotDone(tie)),
    )
  const places = placesOf(segments)
  const chirped = chirpTies(segments, ofKind(recording.evidence, 'chirp')).filter((tie) =>
    hands.every((hand) => tieKey(hand) !== tieKey(tie) && holdBeside(places, hand, tie)),
  )
  const { posteriors, likeness, doubtful } = decode(segments, recording, [...hands, ...chirped])
  const coded = chirped.map((tie): FoundStitch => ({
    ...tie,
    ...{ origin: 'heard', confidence: calibrated(1), evidence: ['chirp'], sigmaMs: CHIRP_SIGMA_MS, alternatives: [] },
  }))
  const found = posteriors.flatMap(
    ({ boundary, instants: [likeliest, ...rivals], sigmaMs, evidence: kinds }): FoundStitch[] => {
      if (!likeliest || !kinds.length || kinds.includes('hand')) return []
      const { segmentId, edge } = boundary
      const alone = calibrated(likeliest.mass)
      if (alone < LEAST_TIED) return []
      const confidence = doubtful ? Math.min(alone, DOUBTED) : alone
      const alternatives = rivals.map(({ footageMs: atMs, mass }) => ({
        footageMs: atMs,
        confidence: calibrated(mass),
      }))
      const { footageMs: foundMs } = likeliest
      return [
        { segmentId, edge, footageMs: foundMs, origin: 'heard', confidence, evidence: kinds, sigmaMs, alternatives },
      ]
    },
  )
  const placeOf = (tie: Tie): number => places.get(tieKey(tie)) ?? 0
  const inOrder = [...coded, ...found].sort((one, other) => placeOf(one) - placeOf(other))
  return {
    // Two that were laid on one call cannot both be there.
    found: longestRising(inOrder, ({ footageMs }) => footageMs, false),
    likeness: coded.length ? Math.max(likeness, calibrated(1)) : likeness,
    doubtful,
  }
}

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
