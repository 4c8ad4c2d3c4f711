// What is believed before anything is matched: how long each stretch of a session really lasts, what a change sounds
// like, and how far a recording may be from being one of this score at all. Numbers, and nothing else, are set here.
import { pitchFamilies, timerBeeps, type TimerBeep } from '../hear/timerBeeps'
import type { Beep } from '../hear/tones'
import type { Segment } from '../score/segment'
import { SECOND, type Ms, type Share } from '../units'
import type { Boundary } from './boundaries'
import type { Length } from './lattice'
import type { Tie } from './ties'

/** How a session may have been run and heard; what was heard weighs them. */
export interface Hypothesis {
  prior: Share
  /** How many of the changes a tone marks. */
  marked: Share
  /** How many of the clocked lengths a timer ran. */
  timed: Share
  /** The tones that are the timer's, in order of time; all others are chance. */
  marks: readonly TimerBeep[]
  /** Rate of those among them that mark no change, per millisecond. */
  strayPerMs: number
  /** How much likelier the number of them is than if they all came by chance. */
  logCount: number
}

const RUNS = [
  { prior: 0.45, marked: 0.96, timed: 0.94 },
  { prior: 0.25, marked: 0.6, timed: 0.85 },
] as const
/** The tones have nothing to do with the changes: a chime, music, another session. */
const CHANCE = { prior: 0.3, marked: 0, timed: 0.4, marks: [], strayPerMs: 1, logCount: 0 } as const
/** So many pitches are tried as the timer's at most. */
const MOST_PITCHES = 10
const FEWEST_MARKS = 3
/** A timer may have a pitch for work, one for rest and one for the end; more of them are music. */
const MOST_TOGETHER = 4
const WHOLE_COUNT = 3
/** How far a mark that was not heard may be from a second after its count. */
const UNHEARD_MS = 12
/** Seconds of a count are this even. */
const COUNT_MS = 120

/**
 * A timer's pitch is one of those that return, or all of them are its own; the last hypothesis is that none is.
 * @param beeps in order of time.
 * @param expected changes that the score has.
 * @param stepMs the grid on which they are weighed: both sides are seen as sharply, and no more.
 */
export function hypothesesFor(beeps: readonly Beep[], expected: number, footageMs: Ms, stepMs: Ms): Hypothesis[] {
  const far = (held: readonly TimerBeep[]): number => Math.abs(Math.log(held.length / expected))
  const pitches = pitchFamilies(beeps).map(marksOf)
  const families = pitches
    .filter((held) => held.length >= FEWEST_MARKS && !pitches.some((other) => other !== held && leadsTo(held, other)))
    .sort((one, other) => far(one) - far(other))
    .slice(0, MOST_PITCHES)
  const one = families.map((held) => ({ held, nullLog: logWithoutScore(held, footageMs, stepMs) }))
  const together = marksOf(timerBeeps(beeps))
  const all = {
    held: together,
    // Labelled by pitch, as the families are.
    nullLog:
      one.reduce((sum, { nullLog }) => sum + nullLog, 0) -
      families.reduce((sum, { length }) => sum + length * Math.log(length / together.length), 0),
  }
  const several = families.length > 1 && families.length <= MOST_TOGETHER
  const sets = several ? [...one, all] : one
  const hypotheses = sets.flatMap(({ held, nullLog }): Hypothesis[] => {
    const strays = Math.max(held.length - expected, LEAST_STRAY * held.length)
    const strayPerMs = Math.max(LEAST_RATE_PER_MS, strays / footageMs)
    const logCount = logPoisson(held.length, strayPerMs, footageMs) - nullLog
    const marks = withUnheard(held)
    return RUNS.map((run) => ({ ...run, prior: run.prior / sets.length, marks, strayPerMs, logCount }))
  })
  return [...hypotheses, CHANCE]
}

const marksOf = (held: readonly TimerBeep[]): TimerBeep[] =>
  held.filter(({ boundaryLikelihood }) => boundaryLikelihood >= LEAST_LIKELY)

/** Most tones of one pitch are followed by the other a second later: they count down to it. */
function leadsTo(held: readonly TimerBeep[], other: readonly TimerBeep[]): boolean {
  let at = 0
  const followed = held.filter(({ atMs }) => {
    while ((other[at]?.atMs ?? Infinity) < atMs + SECOND - COUNT_MS) at++
    return (other[at]?.atMs ?? Infinity) < atMs + SECOND + COUNT_MS
  })
  return followed.length > held.length / 2
}

/** The mark after a count may have come unheard, some seconds after what was heard of it: counts are of three. */
const withUnheard = (held: readonly TimerBeep[]): TimerBeep[] =>
  held
    .flatMap((one) => {
      const later = one.countedS ? Math.max(1, WHOLE_COUNT + 1 - one.countedS) : 0
      const boundaryLikelihood = one.boundaryLikelihood / (later + 1)
      const unheard = Array.from({ length: later }, (_, index) => ({
        ...{ ...one, boundaryLikelihood, atMs: one.atMs + (index + 1) * SECOND, spreadMs: one.spreadMs + UNHEARD_MS },
      }))
      return [later ? { ...one, boundaryLikelihood } : one, ...unheard]
    })
    .sort((one, other) => one.atMs - other.atMs)

const logPoisson = (count: number, perMs: number, spanMs: Ms): number => count * Math.log(perMs) - perMs * spanMs

/** Gaps of timers are whole steps of this, up to the longest. */
const LATTICE_MS = 5 * SECOND
const LONGEST_GAP_MS = 120 * SECOND
/** In a run of tones that some other timer or chime makes: gaps met before, gaps of whole steps, any gap. */
const MET_BEFORE = 0.5
const WHOLE_STEP = 0.35

/**
 * How likely tones of one pitch are without this score: come by chance, or from a chime or a session of another score.
 * Those are regular too, and what is regular fits any plan here and there.
 */
function logWithoutScore(held: readonly TimerBeep[], footageMs: Ms, stepMs: Ms): number {
  const perMs = held.length / footageMs
  const chance = logPoisson(held.length, perMs, footageMs)
  const sigmaMs = Math.hypot(Math.max(TIMER_MS, stepMs / 2), seenMs(TIMER_MS / 4, stepMs))
  const bell = (offMs: Ms): number => Math.exp(-((offMs / sigmaMs) ** 2) / 2) / (sigmaMs * Math.sqrt(2 * Math.PI))
  const met: Ms[] = []
  let regular = Math.log(1 / footageMs)
  held.slice(1).forEach(({ atMs }, index) => {
    const gapMs = atMs - (held[index]?.atMs ?? 0)
    const off = Math.abs(gapMs - LATTICE_MS * Math.round(gapMs / LATTICE_MS))
    const whole = gapMs < LONGEST_GAP_MS ? bell(off) / (LONGEST_GAP_MS / LATTICE_MS) : 0
    const again = met.length ? met.reduce((sum, one) => sum + bell(gapMs - one), 0) / met.length : 0
    const any = perMs * Math.exp(-perMs * gapMs)
    regular += Math.log(MET_BEFORE * again + WHOLE_STEP * whole + (1 - MET_BEFORE - WHOLE_STEP) * any)
    met.push(gapMs)
  })
  return Math.max(chance, regular)
}

/** A timer's steps as recorded: its own jitter and 300 ppm of a minute. */
const TIMER_MS = 22
/** Stretches that a coach ends by looking at a watch. */
const COACH_MS = 400
const SLOW_COACH_MS = 1600

/**
 * @param timed how many clocked lengths a timer ran.
 * @returns what is believed of the time from one boundary to the next, made of the segments between them.
 */
export function lengthOf(between: readonly Segment[], timed: Share): Length {
  const atMs = between.reduce((sum, segment) => sum + segment.durationMs, 0)
  const paces = new Set(between.map(({ pace }) => pace))
  const over = (weight: Share, scaleMs: Ms): Length[number] => ({ weight, shape: 'over', atMs, scaleMs })
  const about = (weight: Share, scaleMs: Ms): Length[number] => ({ weight, shape: 'about', atMs, scaleMs })
  const anything = { weight: 0.1, shape: 'any', atMs: SECOND, scaleMs: 0 } as const
  if (between.some(({ kind }) => kind === 'talk') || paces.has('open'))
    return [{ weight: 0.9, shape: 'over', atMs: SECOND, scaleMs: Math.max(30 * SECOND, atMs) }, anything]
  if (paces.has('own'))
    return [about(0.6, Math.max(SECOND, 0.2 * atMs)), about(0.3, Math.max(SECOND, 0.6 * atMs)), anything]
  if (paces.has('range')) {
    const halfMs = between.reduce((sum, { minMs, maxMs }) => sum + ((maxMs ?? minMs) - minMs) / 2, 0)
    return [about(0.9, Math.max(SECOND, halfMs)), anything]
  }
  // Nearly all that goes astray does so in breaks, where nobody is in a hurry.
  const loose = between.some(({ kind }) => kind === 'break' || kind === 'lead')
  const strays = loose ? 0.3 : 0.03
  const clocked = 1 - strays
  return [
    { weight: clocked * timed, shape: 'near', atMs, scaleMs: TIMER_MS },
    about(clocked * (1 - timed) * 0.8, COACH_MS),
    about(clocked * (1 - timed) * 0.2, SLOW_COACH_MS),
    over(strays * 0.9, 20 * SECOND),
    { weight: strays * 0.1, shape: 'any', atMs: SECOND, scaleMs: 0 },
  ]
}

/** Only the likeliest part of a length. */
export function usually(length: Length): Length {
  const [likeliest] = [...length].sort((one, other) => other.weight - one.weight)
  return likeliest ? [{ ...likeliest, weight: 1 }] : []
}

/** A beep less likely than this to mark a change is a second on the way to one. */
const LEAST_LIKELY = 0.4
/** Tones that mean nothing come at least this often: one in two minutes. */
const LEAST_RATE_PER_MS = 1 / 120_000
/** However well its changes are explained, some share of the tones is chance. */
const LEAST_STRAY: Share = 0.08
const MOST_FACTOR = 8
const REACH = 4

/** How sharply a tone is seen on a grid. */
const seenMs = (spreadMs: Ms, stepMs: Ms): Ms => Math.max(spreadMs, 8, stepMs * 0.6)

/** How much likelier what was heard is if a change lies in a cell than if none does. */
export function toneLikelihood(
  { marks, marked, strayPerMs }: Hypothesis,
  { cells, stepMs }: { cells: number; stepMs: Ms },
): Float64Array {
  const field = new Float64Array(cells).fill(1 - marked)
  for (const { atMs, spreadMs, boundaryLikelihood } of marks) {
    const sigmaMs = seenMs(spreadMs, stepMs)
    const odds = boundaryLikelihood / Math.max(1e-3, 1 - boundaryLikelihood)
    const factor = (marked * Math.min(MOST_FACTOR, odds)) / strayPerMs / (sigmaMs * Math.sqrt(2 * Math.PI))
    const low = Math.max(0, Math.ceil((atMs - REACH * sigmaMs) / stepMs)),
      high = Math.min(cells - 1, Math.floor((atMs + REACH * sigmaMs) / stepMs))
    for (let cell = low; cell <= high; cell++)
      field[cell] = (field[cell] ?? 0) + factor * Math.exp(-(((cell * stepMs - atMs) / sigmaMs) ** 2) / 2)
  }
  return field
}

/** A boundary that a hand tied lies there and nowhere else. */
export function tiedLikelihood({ footageMs }: Tie, { cells, stepMs }: { cells: number; stepMs: Ms }): Float64Array {
  const field = new Float64Array(cells)
  field[Math.min(cells - 1, Math.max(0, Math.round(footageMs / stepMs)))] = 1
  return field
}

/** The boundaries that can be heard, and what lies between each and the next. */
export function stretchesBetween(
  segments: readonly Segment[],
  boundaries: readonly Boundary[],
): { audible: Boundary[]; between: Segment[][]; plannedMs: Ms[] } {
  const places = boundaries.flatMap((boundary, at) => (boundary.audible ? [at] : []))
  const audible = places.flatMap((at) => boundaries[at] ?? [])
  const between = places.slice(1).map((at, index) => segments.slice(places[index], at))
  return { audible, between, plannedMs: between.map((held) => held.reduce((sum, one) => sum + one.durationMs, 0)) }
}
