// What is believed before anything is matched: how long each stretch of a session really lasts, what a change sounds
// like, and how far a recording may be from being one of this score at all. Numbers, and nothing else, are set here.
import { ofKind, type Evidence, type EvidenceOf } from '../evidence'
import { pitchFamilies, timerBeeps, type TimerBeep } from '../hear/timerBeeps'
import type { Beep } from '../hear/tones'
import type { Segment } from '../score/segment'
import { SECOND, type Ms, type Share } from '../units'
import type { Boundary } from './boundaries'
import type { Length } from './lattice'
import type { Tie } from './ties'

/** A call, as it was heard or as it stands in captions. */
type Calling = EvidenceOf<'word' | 'caption'>

/** Something heard that may mark a change. */
export interface Mark {
  kind: 'beep' | 'sample' | Calling['kind']
  atMs: Ms
  spreadMs: Ms
  /** How likely it marks a change and is nothing else. */
  boundaryLikelihood: Share
  /** How likely it is to mark the beginning of work and not its end; tones do not tell. */
  workShare: Share
}

/** What begins at a change, as far as it is called out. */
export type Begins = 'work' | 'rest' | null

/** How a session may have been run and heard; what was heard weighs them. */
export interface Hypothesis {
  prior: Share
  /** How many of the changes are marked. */
  marked: Share
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
type Marking = Pick<Hypothesis, 'marked' | 'others' | 'marks' | 'strayPerMs'>

type Run = Pick<Hypothesis, 'prior' | 'marked' | 'timed' | 'others'>
const RUNS: readonly Run[] = [
  { prior: 0.64, marked: 0.96, timed: 0.94, others: null },
  { prior: 0.36, marked: 0.6, timed: 0.85, others: null },
]
/** A coach calls the changes, by a silent watch or by feeling. */
const SPOKEN: readonly Run[] = [
  { prior: 0.5, marked: 0.93, timed: 0.9, others: null },
  { prior: 0.25, marked: 0.93, timed: 0.5, others: null },
  { prior: 0.25, marked: 0.6, timed: 0.8, others: null },
]
/** What sounds like a tap marks changes of its kind, and now and then, as where both are counted in, of the other. */
const sampled = (than: Begins): readonly Run[] => [
  { prior: 0.4, marked: 0.9, timed: 0.9, others: { than, marked: 0.05 } },
  { prior: 0.4, marked: 0.9, timed: 0.9, others: { than, marked: 0.55 } },
  { prior: 0.2, marked: 0.6, timed: 0.8, others: { than, marked: 0.3 } },
]
/** What was heard has nothing to do with the changes: a chime, music, talk, another session. */
const CHANCE = {
  prior: 0.3,
  marked: 0,
  timed: 0.4,
  others: null,
  marks: [],
  strayPerMs: 1,
  logCount: 0,
  along: null,
} as const
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
 * A timer's pitch is one of those that return, or all of them are its own; or a coach calls the changes; the last
 * hypothesis is that nothing marks any.
 * @param heard in order of time.
 * @param expected changes that the score has.
 * @param stepMs the grid on which they are weighed: both sides are seen as sharply, and no more.
 */
export function hypothesesFor(heard: readonly Evidence[], expected: number, footageMs: Ms, stepMs: Ms): Hypothesis[] {
  const called = spokenBy(ofKind(heard, 'word'), expected, footageMs, stepMs)
  const kinds = [
    withCalls(tonedBy(ofKind(heard, 'beep'), expected, footageMs, stepMs), called),
    called?.hypotheses ?? [],
    spokenBy(ofKind(heard, 'caption'), expected, footageMs, stepMs)?.hypotheses ?? [],
    likeTap(ofKind(heard, 'sample'), expected, footageMs, stepMs)?.hypotheses ?? [],
  ].filter((hypotheses) => hypotheses.length)
  const each = (1 - CHANCE.prior) / kinds.length
  return [...kinds.flat().map((one) => ({ ...one, prior: one.prior * each })), CHANCE]
}

/** What two kinds say of one change counts this much of the second: they may be wrong together. */
const SOFTENED = 0.5

/** Where a timer is heard and somebody calls, the calls are of the same changes, or are chance; not of another session. */
function withCalls(toned: readonly Hypothesis[], called: Called | null): readonly Hypothesis[] {
  const [first] = called?.hypotheses ?? []
  if (!called || !first) return toned
  return toned.flatMap((tone) => [
    { ...tone, prior: tone.prior / 2, logCount: tone.logCount + SOFTENED * called.chanceLog },
    { ...tone, prior: tone.prior / 2, logCount: tone.logCount + SOFTENED * first.logCount, along: first },
  ])
}

function tonedBy(beeps: readonly Beep[], expected: number, footageMs: Ms, stepMs: Ms): Hypothesis[] {
  const far = (held: readonly TimerBeep[]): number => Math.abs(Math.log(held.length / expected))
  const pitches = pitchFamilies(beeps).map(marksOf)
  const families = pitches
    .filter((held) => held.length >= FEWEST_MARKS && !pitches.some((other) => other !== held && leadsTo(held, other)))
    .sort((one, other) => far(one) - far(other))
    .slice(0, MOST_PITCHES)
  const sigmaMs = Math.hypot(Math.max(TIMER_MS, stepMs / 2), seenMs(TIMER_MS / 4, stepMs))
  const one = families.map((held) => ({ held, nullLog: logWithoutScore(held, footageMs, sigmaMs) }))
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
  return sets.flatMap(({ held, nullLog }) => {
    const marks = withUnheard(held).map((beep): Mark => ({ ...beep, workShare: EITHER }))
    return runsOf(RUNS, { marks, count: held.length, nullLog, expected, footageMs }).map((run) => ({
      ...run,
      prior: run.prior / sets.length,
    }))
  })
}

/** A call of one kind is, now and then, of the other. */
const MISCALLED: Share = 0.04
const EITHER: Share = 0.5
/** Without any plan, work and rest take turns as often as this. */
const TURNS: Share = 0.85
/** A call comes this long before or after the change that it is meant for. */
const CALLED_MS: Ms = 150
/** Less than this is no call. */
const LEAST_CALLED: Share = 0.05

function spokenBy(calls: readonly Calling[], expected: number, footageMs: Ms, stepMs: Ms): Called | null {
  const marks = calledMarks(calls)
  const clear = marks.filter(isClear)
  const turns = clear.slice(1).reduce(
    (log, { workShare }, index) => {
      const before = clear[index]?.workShare ?? EITHER
      const same = workShare * before + (1 - workShare) * (1 - before)
      return log + Math.log(same * (1 - TURNS) + (1 - same) * TURNS)
    },
    clear.length ? Math.log(EITHER) : 0,
  )
  const labels = clear.length * Math.log(EITHER)
  return calledRuns(SPOKEN, { marks, labelsLog: turns - labels, expected, footageMs, stepMs })
}

/** Likes of taps; of more than one kind of change, they may mark all. */
function likeTap(likes: readonly EvidenceOf<'sample'>[], expected: number, footageMs: Ms, stepMs: Ms): Called | null {
  const marks = likes
    .filter(({ strength }) => strength >= LEAST_CALLED)
    .map(({ kind, atMs, spreadMs, strength }): Mark => ({
      ...{ kind, atMs, spreadMs: Math.hypot(spreadMs, CALLED_MS), workShare: EITHER, boundaryLikelihood: strength },
    }))
  const words = new Set(likes.map(({ word }) => word))
  const [word = null] = words
  const runs = words.size > 1 ? SPOKEN : sampled(word)
  return calledRuns(runs, { marks, labelsLog: 0, expected, footageMs, stepMs })
}

/** A call that is clear is somebody's; one that is not is chance, with this score and without it. */
const isClear = ({ boundaryLikelihood }: Mark): boolean => boundaryLikelihood >= CLEAR
const CLEAR: Share = 0.3

interface Calls {
  marks: readonly Mark[]
  /** What the order of work and rest says for a session of another score. */
  labelsLog: number
  expected: number
  footageMs: Ms
  stepMs: Ms
}
interface Called {
  hypotheses: Hypothesis[]
  /** How much likelier the calls are by chance alone than as those of any session. */
  chanceLog: number
}

/** Without this score, clear calls are of a session of another one, which was called as well as this one would be. */
function calledRuns(runs: readonly Run[], { marks, labelsLog, expected, footageMs, stepMs }: Calls): Called | null {
  const clear = marks.filter(isClear)
  if (clear.length < FEWEST_MARKS) return null
  const spreadMs = Math.SQRT2 * Math.hypot(marks[0]?.spreadMs ?? CALLED_MS, stepMs / 2)
  const count = marks.length
  const unclear = (count - clear.length) * Math.log(strayRate(count, expected, footageMs))
  const clearLog = logWithoutScore(clear, footageMs, spreadMs, oddsOf) + labelsLog
  const chanceLog = logPoisson(clear.length, clear.length / footageMs, footageMs) - clearLog
  const hypotheses = runsOf(runs, { marks, count, nullLog: clearLog + unclear, expected, footageMs })
  return { hypotheses, chanceLog: Math.min(0, chanceLog) }
}

/** Calls of work and of rest that are heard at one instant are one call of either. */
function calledMarks(calls: readonly Calling[]): Mark[] {
  const marks: Mark[] = []
  for (const { kind, word, atMs, spreadMs, strength } of calls) {
    if (word !== 'work' && word !== 'rest') continue
    const last = marks.at(-1)
    const workShare = word === 'work' ? 1 : 0
    const heard = { kind, atMs, spreadMs: Math.hypot(spreadMs, CALLED_MS) }
    if (last && atMs - last.atMs < CALLED_MS) {
      const sum = last.boundaryLikelihood + strength
      const share = (last.workShare * last.boundaryLikelihood + workShare * strength) / sum
      marks[marks.length - 1] = { ...last, boundaryLikelihood: Math.min(1, sum), workShare: share }
    } else marks.push({ ...heard, boundaryLikelihood: strength, workShare })
  }
  return marks
    .filter(({ boundaryLikelihood }) => boundaryLikelihood >= LEAST_CALLED)
    .map((mark) => ({ ...mark, workShare: MISCALLED + (1 - 2 * MISCALLED) * mark.workShare }))
}

function runsOf(
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
const strayRate = (count: number, expected: number, footageMs: Ms): number =>
  Math.max(LEAST_RATE_PER_MS, Math.max(count - expected, LEAST_STRAY * count) / footageMs)

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
 * How likely tones of one pitch, or calls, are without this score: come by chance, or from a chime or a session of
 * another score. Those are regular too, and what is regular fits any plan here and there.
 * @param sigmaMs how far a gap is from what it was meant to be.
 * @param oddsOf how much likelier one is to mark a change of some session than to mean nothing.
 */
function logWithoutScore<Held extends Pick<Mark, 'atMs'>>(
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

const oddsOf = ({ boundaryLikelihood }: Pick<Mark, 'boundaryLikelihood'>): number =>
  Math.min(MOST_FACTOR, boundaryLikelihood / Math.max(1e-3, 1 - boundaryLikelihood))

/** How much likelier what was heard is if a change lies in a cell than if none does. */
export function markLikelihood(hypothesis: Hypothesis, begins: Begins, grid: Grid): Float64Array {
  const field = fieldOf(hypothesis, begins, grid)
  if (!hypothesis.along) return field
  const along = fieldOf(hypothesis.along, begins, grid)
  return field.map((one, cell) => one * (along[cell] ?? 1) ** SOFTENED)
}

interface Grid {
  cells: number
  stepMs: Ms
}

function fieldOf(
  { marks, marked: most, others, strayPerMs }: Marking,
  begins: Begins,
  { cells, stepMs }: Grid,
): Float64Array {
  const marked = others && begins !== others.than ? others.marked : most
  const field = new Float64Array(cells).fill(1 - marked)
  for (const { atMs, spreadMs, boundaryLikelihood, workShare } of marks) {
    const sigmaMs = seenMs(spreadMs, stepMs)
    const odds = oddsOf({ boundaryLikelihood })
    const called = begins === null ? 1 : (begins === 'work' ? workShare : 1 - workShare) / EITHER
    const factor = (marked * odds * called) / strayPerMs / (sigmaMs * Math.sqrt(2 * Math.PI))
    const low = Math.max(0, Math.ceil((atMs - REACH * sigmaMs) / stepMs)),
      high = Math.min(cells - 1, Math.floor((atMs + REACH * sigmaMs) / stepMs))
    for (let cell = low; cell <= high; cell++)
      field[cell] = (field[cell] ?? 0) + factor * Math.exp(-(((cell * stepMs - atMs) / sigmaMs) ** 2) / 2)
  }
  return field
}

/** What a coach would call out where these segments begin, or where the score ends. */
export function beginsWith(segments: readonly Segment[] | undefined): Begins {
  const kind = segments?.[0]?.kind
  if (kind === 'work') return 'work'
  return kind === 'lead' ? null : 'rest'
}

/** A boundary that a hand tied lies there and nowhere else. */
export function tiedLikelihood({ footageMs }: Tie, { cells, stepMs }: Grid): Float64Array {
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
