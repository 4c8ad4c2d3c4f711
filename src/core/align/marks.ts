// What was heard as marks of changes: how likely it is under a hypothesis of how the session was run, and under its
// rival, that it has nothing to do with this score.
import type { EvidenceOf } from '../evidence'
import { SECOND, type Ms, type Share } from '../units'

/** A call, as it was heard or as it stands in captions. */
export type Calling = EvidenceOf<'word' | 'caption'>

/** Something heard that may mark a change. */
export interface Mark {
  kind: 'beep' | 'sample' | Calling['kind']
  atMs: Ms
  spreadMs: Ms
  /** How likely it marks a change and is nothing else. */
  boundaryLikelihood: Share
  /** How likely it is to mark the beginning of work and not its end; tones do not tell. */
  workShare: Share
  /** Where it is an overtone: the rate of those that mark no change, per millisecond. */
  overtonePerMs?: number
}

/** What begins at a change, as far as it is called out. */
export type Begins = 'work' | 'rest' | null

/** How a session may have been run and heard; what was heard weighs them. */
export interface Hypothesis {
  prior: Share
  /** How many of the changes are marked. */
  marked: Share
  /** How many are heard by an overtone alone, of each of those that are heard at all. */
  drowned: Share
  /** How many of those that are of another kind than what was tapped; null where marks are for all kinds. */
  others: { than: Begins; marked: Share } | null
  /** How many of the clocked lengths a timer ran. */
  timed: Share
  /** What may mark changes, in order of time: tones that are the timer's, or calls. All others are chance. */
  marks: readonly Mark[]
  /** Rate of those among them that mark no change, per millisecond. */
  strayPerMs: number
  /** How much likelier the number of them is than if they all came by chance. */
  logCount: number
  /** Calls that go with a timer's tones, softened: both tell of the same changes. */
  along: Marking | null
}
export type Marking = Pick<Hypothesis, 'marked' | 'drowned' | 'others' | 'marks' | 'strayPerMs'>
export type Run = Pick<Hypothesis, 'prior' | 'marked' | 'drowned' | 'timed' | 'others'>

export const FEWEST_MARKS = 3
export const EITHER: Share = 0.5
/** What two kinds say of one change counts this much of the second: they may be wrong together. */
export const SOFTENED = 0.5
/** A timer's steps as recorded: its own jitter and 300 ppm of a minute. */
export const TIMER_MS = 22
/** Tones that mean nothing come at least this often: one in two minutes. */
const LEAST_RATE_PER_MS = 1 / 120_000
/** However well its changes are explained, some share of the tones is chance. */
const LEAST_STRAY: Share = 0.08
const MOST_FACTOR = 8
const REACH = 4

export function runsOf(
  runs: readonly Run[],
  {
    marks,
    count,
    nullLog,
    expected,
    footageMs,
  }: { marks: readonly Mark[]; count: number; nullLog: number; expected: number; footageMs: Ms },
): Hypothesis[] {
  const strayPerMs = strayRate(count, expected, footageMs)
  const logCount = logPoisson(count, strayPerMs, footageMs) - nullLog
  return runs.map((run) => ({ ...run, marks, strayPerMs, logCount, along: null }))
}

/** Of marks that mean nothing, per millisecond. */
export const strayRate = (count: number, expected: number, footageMs: Ms): number =>
  Math.max(LEAST_RATE_PER_MS, Math.max(count - expected, LEAST_STRAY * count) / footageMs)

export const logPoisson = (count: number, perMs: number, spanMs: Ms): number => count * Math.log(perMs) - perMs * spanMs

/** Gaps of timers are whole steps of this, up to the longest. */
const LATTICE_MS = 5 * SECOND
const LONGEST_GAP_MS = 120 * SECOND
/** In a run of tones that some other timer or chime makes: gaps met before, gaps of whole steps, any gap. */
const MET_BEFORE = 0.5
const WHOLE_STEP = 0.35

/**
 * How likely tones of one pitch, or calls, are without this score: come by chance, or from a chime or a session of
 * another score. Those are regular too, and what is regular fits any plan here and there.
 * @param sigmaMs how far a gap is from what it was meant to be.
 * @param oddsOf how much likelier one is to mark a change of some session than to mean nothing.
 */
export function logWithoutScore<Held extends Pick<Mark, 'atMs'>>(
  held: readonly Held[],
  footageMs: Ms,
  sigmaMs: Ms,
  oddsOf: (one: Held) => number = () => 1,
): number {
  const perMs = held.length / footageMs
  const chance = logPoisson(held.length, perMs, footageMs)
  const bell = (offMs: Ms): number => Math.exp(-((offMs / sigmaMs) ** 2) / 2) / (sigmaMs * Math.sqrt(2 * Math.PI))
  const met: Ms[] = []
  let regular = Math.log(1 / footageMs)
  held.slice(1).forEach((one, index) => {
    const gapMs = one.atMs - (held[index]?.atMs ?? 0)
    const off = Math.abs(gapMs - LATTICE_MS * Math.round(gapMs / LATTICE_MS))
    const whole = gapMs < LONGEST_GAP_MS ? bell(off) / (LONGEST_GAP_MS / LATTICE_MS) : 0
    const again = met.length ? met.reduce((sum, other) => sum + bell(gapMs - other), 0) / met.length : 0
    const any = perMs * Math.exp(-perMs * gapMs)
    regular += Math.log(oddsOf(one) * (MET_BEFORE * again + WHOLE_STEP * whole) + (1 - MET_BEFORE - WHOLE_STEP) * any)
    met.push(gapMs)
  })
  return Math.max(chance, regular)
}

/** How sharply a tone is seen on a grid. */
export const seenMs = (spreadMs: Ms, stepMs: Ms): Ms => Math.max(spreadMs, 8, stepMs * 0.6)

export const oddsOf = ({ boundaryLikelihood }: Pick<Mark, 'boundaryLikelihood'>): number =>
  Math.min(MOST_FACTOR, boundaryLikelihood / Math.max(1e-3, 1 - boundaryLikelihood))

/**
 * How much likelier what was heard is if a change lies in a cell than if none does.
 * @param beside what goes with it says, already softened.
 */
export function markLikelihood(
  hypothesis: Hypothesis,
  begins: Begins,
  grid: Grid,
  beside: Float64Array | null,
): Float64Array {
  const field = fieldOf(hypothesis, begins, grid)
  return beside ? field.map((one, cell) => one * (beside[cell] ?? 1)) : field
}

/** What calls say beside tones. The same for every pitch that they may go with. */
export const softenedBy = (along: Marking, begins: Begins, grid: Grid): Float64Array =>
  fieldOf(along, begins, grid).map((one) => one ** SOFTENED)

export interface Grid {
  cells: number
  stepMs: Ms
}

function fieldOf(
  { marks, marked: most, drowned, others, strayPerMs }: Marking,
  begins: Begins,
  { cells, stepMs }: Grid,
): Float64Array {
  const marked = others && begins !== others.than ? others.marked : most
  const field = new Float64Array(cells).fill(1 - marked - drowned)
  for (const { atMs, spreadMs, boundaryLikelihood, workShare, overtonePerMs } of marks) {
    const sigmaMs = seenMs(spreadMs, stepMs)
    const told =
      overtonePerMs === undefined ? (marked * oddsOf({ boundaryLikelihood })) / strayPerMs : drowned / overtonePerMs
    const called = begins === null ? 1 : (begins === 'work' ? workShare : 1 - workShare) / EITHER
    addBell(field, stepMs, { atMs, sigmaMs, weight: told * called, reach: REACH })
  }
  return field
}

/** @param bell its area in milliseconds is `weight`; beyond `reach` standard deviations it is nothing. */
export function addBell(
  field: Float64Array,
  stepMs: Ms,
  { atMs, sigmaMs, weight, reach }: { atMs: Ms; sigmaMs: Ms; weight: number; reach: number },
): void {
  const factor = weight / (sigmaMs * Math.sqrt(2 * Math.PI))
  const low = Math.max(0, Math.ceil((atMs - reach * sigmaMs) / stepMs)),
    high = Math.min(field.length - 1, Math.floor((atMs + reach * sigmaMs) / stepMs))
  for (let cell = low; cell <= high; cell++)
    field[cell] = (field[cell] ?? 0) + factor * Math.exp(-(((cell * stepMs - atMs) / sigmaMs) ** 2) / 2)
}
