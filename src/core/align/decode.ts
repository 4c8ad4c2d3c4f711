// Where each boundary lies, and how sure that is: a forward-backward pass over all ways to lay the score over the
// footage, under several hypotheses of how the session was run. What a hand tied holds; the rest follows from it.
import { ofKind, type Evidence, type EvidenceKind, type EvidenceOf } from '../evidence'
import { Problem } from '../problem'
import type { Segment } from '../score/segment'
import type { Ms, Share } from '../units'
import { maybeAnothers } from './another'
import { boundariesOf, tieKey, type Boundary } from './boundaries'
import { endings, mirrored, runForward, type Beginning, type Lattice, type OnBoundary } from './lattice'
import { SHORTEST_MS, type Length } from './lengths'
import { hypothesesFor } from './hypotheses'
import { markLikelihood, softenedBy, type Begins, type Grid, type Hypothesis, type Mark } from './marks'
import { movementLikelihood } from './moved'
import { beginsWith, lengthOf, stretchesBetween, tiedLikelihood, usually } from './model'
import type { Tie } from './ties'

export interface Instant {
  footageMs: Ms
  /** How probable it is that the boundary lies here, within the bound. */
  mass: Share
}

/** What is known of one boundary. */
export interface Posterior {
  boundary: Boundary
  /** The likeliest instant first, then its rivals; none where the boundary is hardly anywhere. */
  instants: Instant[]
  sigmaMs: Ms
  evidence: EvidenceKind[]
}

export interface Decoded {
  posteriors: Posterior[]
  /** How probable it is that what was heard marks the changes of this score at all. */
  likeness: Share
  /** It may be those of another session that shares intervals with this one. Nothing is once somebody tied a change. */
  doubtful: boolean
}
const NOTHING: Decoded = { posteriors: [], likeness: 0, doubtful: false }

/** Grids divide a second, so that whole seconds of plan fall on cells. */
const STEPS: readonly Ms[] = [20, 25, 40, 50, 100, 200, 250, 500]
const MOST_CELLS = 20_000_000
/** Only to weigh hypotheses; twice as coarse where there is much to weigh. */
const COARSE_MS: Ms = 100
const MUCH = 4_000_000
/** Where there is more than this, what is out of the question on a rougher grid is not weighed again. */
const SOME = 1_000_000
const ROUGH_STEPS: readonly Ms[] = [250, 500, 1000]
/** Logarithm of how much less likely than the likeliest is out of the question. */
const OUT_OF_QUESTION = 40
/** A hypothesis less likely than this is not looked at closely. */
const LEAST_WEIGHT: Share = 0.01
/** A tie holds within this of the truth where a tone marks it, and where nothing but its neighbours does. */
const TONE_BOUND_MS: Ms = 100
const LOOSE_BOUND_MS: Ms = 400
/** A tone, or a call, this near to what was found is what was heard of it. */
const SAME_MS: Record<Mark['kind'], Ms> = { beep: 60, word: 400, sample: 400, caption: 600 }
const MOST_INSTANTS = 3
const LEAST_MASS: Share = 0.02

interface Task {
  audible: readonly Boundary[]
  between: readonly (readonly Segment[])[]
  plannedMs: readonly Ms[]
  footageMs: Ms
  bordersMs: readonly Ms[]
  /** The grid on which hypotheses are weighed. */
  coarseMs: Ms
  hypotheses: readonly Hypothesis[]
  movement: readonly EvidenceOf<'motion'>[]
  /** What calls beside tones and movement say, by what begins and by the step of the grid: worked out once. */
  beside: Map<string, Float64Array>
  hands: ReadonlyMap<string, Tie>
}

/** What was heard, and where: one file, or several end to end. */
export interface Recording {
  /** In order of time. */
  evidence: readonly Evidence[]
  footageMs: Ms
  /** Where the second file begins, and every one after it: what happened in between was not filmed. */
  bordersMs?: readonly Ms[]
}

/**
 * @param hands ties that hold whatever was heard; they may not cross.
 * @throws Problem `too-many` where score and recording are too large to be matched.
 */
export function decode(
  segments: readonly Segment[],
  { evidence, footageMs, bordersMs = [] }: Recording,
  hands: readonly Tie[] = [],
): Decoded {
  const stretches = stretchesBetween(segments, boundariesOf(segments))
  const lastMs = Math.max(footageMs, evidence.at(-1)?.atMs ?? 0, ...hands.map((tie) => tie.footageMs))
  const pairs = (stretches.audible.length * lastMs) / COARSE_MS
  const coarseMs = Math.max(pairs > MUCH ? 2 * COARSE_MS : COARSE_MS, finestStep(stretches.audible.length, lastMs))
  const held = {
    ...{ ...stretches, footageMs: lastMs + 1, bordersMs, hands: apart(stretches.audible, hands) },
    movement: ofKind(evidence, 'motion'),
  }
  const taskOn = (gridMs: Ms): Task => ({
    ...{ ...held, coarseMs: gridMs, beside: new Map() },
    hypotheses: hypothesesFor(evidence, held.audible.length, held.footageMs, gridMs),
  })
  const task = taskOn(coarseMs)
  if (!task.audible.length || (task.hypotheses.length === 1 && !hands.length)) return NOTHING
  const roughMs = pairs > SOME ? ROUGH_STEPS.find((stepMs) => stepMs >= 2 * coarseMs) : undefined
  const weights = weigh(task, roughMs ? logsOf(taskOn(roughMs)) : null)
  const stepMs = finestStep(task.audible.length, task.footageMs)
  const spreads = task.audible.map(() => new Spread())
  task.hypotheses.forEach((hypothesis, index) => {
    const weight = weights[index] ?? 0
    if (weight >= LEAST_WEIGHT) closely(latticeOf(task, hypothesis, { stepMs, weighing: false }), weight, spreads)
  })
  const believed = task.hypotheses.flatMap(({ marks }, index) => ((weights[index] ?? 0) >= LEAST_WEIGHT ? marks : []))
  const posteriors = task.audible.map((boundary, at): Posterior => {
    const found = told(boundary, spreads[at] as Spread, stepMs, believed)
    return task.hands.has(tieKey(boundary)) ? { ...found, evidence: ['hand'] } : found
  })
  const likeliest = task.hypotheses[weights.indexOf(Math.max(...weights))]
  const doubtful = !hands.length && maybeAnothers(posteriors, likeliest?.marks ?? [])
  return { posteriors, likeness: 1 - (weights.at(-1) ?? 0), doubtful }
}

/** Two changes may be tied to one instant, as where a station was skipped: the first of them is held to. */
function apart(boundaries: readonly Boundary[], hands: readonly Tie[]): Map<string, Tie> {
  const named = new Map(hands.map((tie) => [tieKey(tie), tie]))
  let lastMs = -Infinity
  return new Map(
    boundaries.flatMap((boundary): [string, Tie][] => {
      const tie = named.get(tieKey(boundary))
      if (!tie || tie.footageMs < lastMs + 2 * SHORTEST_MS) return []
      lastMs = tie.footageMs
      return [[tieKey(boundary), tie]]
    }),
  )
}

/** @returns the logarithm of what stands for each hypothesis; those that are not in question have none. */
const logsOf = (task: Task, inQuestion: (at: number) => boolean = () => true): number[] =>
  task.hypotheses.map((hypothesis, at) =>
    inQuestion(at)
      ? Math.log(hypothesis.prior) +
        hypothesis.logCount +
        logTotal(latticeOf(task, hypothesis, { stepMs: task.coarseMs, weighing: true }))
      : -Infinity,
  )

/**
 * @param rough what stands for each on a coarser grid, where it was looked at.
 * @returns the probability of each hypothesis.
 */
function weigh(task: Task, rough: readonly number[] | null): Share[] {
  const least = Math.max(...(rough ?? [])) - OUT_OF_QUESTION
  const logs = logsOf(task, (at) => rough === null || (rough[at] ?? 0) >= least)
  const most = Math.max(...logs)
  if (most === -Infinity) return logs.map((_, index) => Number(index === logs.length - 1))
  const shares = logs.map((log) => Math.exp(log - most))
  const sum = shares.reduce((total, share) => total + share, 0)
  return shares.map((share) => share / sum)
}

function finestStep(boundaries: number, footageMs: Ms): Ms {
  const found = STEPS.find((stepMs) => (boundaries * footageMs) / stepMs <= MOST_CELLS)
  if (found !== undefined) return found
  throw new Problem({
    ...{ code: 'too-many', what: 'pairs to match', most: MOST_CELLS },
    found: Math.round((boundaries * footageMs) / (STEPS.at(-1) ?? 1)),
  })
}

function latticeOf(
  task: Task,
  hypothesis: Hypothesis,
  { stepMs, weighing }: { stepMs: Ms; weighing: boolean },
): Lattice {
  const { audible, between, plannedMs, footageMs, bordersMs, hands } = task
  const grid = { cells: Math.max(2, Math.ceil(footageMs / stepMs)), stepMs }
  const fields = new Map<Begins, Float64Array>()
  const likely = (begins: Begins): Float64Array => {
    const { along, marks: held } = hypothesis
    const tells = along || task.movement.length || held.some(({ kind }) => kind !== 'beep') ? begins : null
    const field = fields.get(tells) ?? markLikelihood(hypothesis, tells, grid, besideFor(task, hypothesis, tells, grid))
    fields.set(tells, field)
    return field
  }
  const ties = audible.map((boundary) => hands.get(tieKey(boundary)))
  const lengths = between.map((held) => lengthOf(held, hypothesis.timed))
  const only = (at: number, kind: Segment['kind']): boolean =>
    between[at]?.length === 1 && between[at][0]?.kind === kind
  /** Of what hardly ever happens, only how it usually goes. */
  const usual = (at: number): Length | null => (lengths[at] ? usually(lengths[at]) : null)
  const repeated = (at: number): Lattice['again'][number] => {
    const rest = usual(at),
      work = usual(at - 1)
    return only(at, 'rest') && only(at - 1, 'work') && rest && work ? { rest, work } : null
  }
  return {
    ...grid,
    plannedMs,
    extra: [likely('work'), likely('rest')],
    again: lengths.map((_, at) => (weighing ? null : repeated(at))),
    leftOut: audible.slice(3).map((_, at) => (only(at + 1, 'work') && !only(at + 2, 'work') ? usual(at) : null)),
    likelihoods: ties.map((tie, at) => (tie ? tiedLikelihood(tie, grid) : likely(beginsWith(between[at])))),
    lengths,
    fixed: ties.map((tie) => tie !== undefined),
    borders: bordersMs.map((ms) => Math.round(ms / stepMs)).filter((cell) => cell > 0 && cell < grid.cells),
  }
}

/** What goes with the marks of a hypothesis: calls, where the marks are tones, and movement. */
function besideFor(task: Task, { along }: Hypothesis, begins: Begins, grid: Grid): Float64Array | null {
  const { movement, beside, audible, footageMs } = task
  if (!along && !movement.length) return null
  const key = `${along ? 'called' : ''} ${begins} ${grid.stepMs}`
  const known = beside.get(key)
  if (known) return known
  const moved = movementLikelihood(movement, begins, grid, { expected: audible.length, footageMs })
  const field = along ? softenedBy(along, begins, grid).map((called, cell) => called * (moved[cell] ?? 1)) : moved
  beside.set(key, field)
  return field
}

/** The logarithm of the weight of all paths together. @param keep called with what leads to each boundary. */
function logTotal(lattice: Lattice, keep?: OnBoundary): number {
  const ends = endings(lattice)
  let log = -Infinity
  runForward(lattice, (at, alpha, logScale) => {
    log = logSum(log, logScale + Math.log(endingIn(alpha, ends[at])))
    keep?.(at, alpha, logScale)
  })
  return log
}

/** The weight of paths that end at a boundary. */
function endingIn(alpha: Float64Array, end: Beginning | undefined): number {
  if (!end) return 0
  const from = alpha.length - end.within
  let far = 0,
    near = 0
  for (let cell = 0; cell < from; cell++) far += alpha[cell] ?? 0
  for (let cell = from; cell < alpha.length; cell++) near += alpha[cell] ?? 0
  return far * end.far + near * end.near
}

const logSum = (one: number, other: number): number => {
  const most = Math.max(one, other)
  return most === -Infinity ? most : most + Math.log1p(Math.exp(Math.min(one, other) - most))
}

/** Where a boundary may lie: cells with their probability, the others left out. */
class Spread {
  private readonly shares = new Map<number, number>()

  add(cell: number, share: number): void {
    this.shares.set(cell, (this.shares.get(cell) ?? 0) + share)
  }

  /** In order of time. */
  cells(): [cell: number, share: number][] {
    return [...this.shares].sort(([one], [other]) => one - other)
  }
}

const LEAST_SHARE = 1e-6

function closely(lattice: Lattice, weight: Share, spreads: readonly Spread[]): void {
  const { cells, likelihoods } = lattice
  const count = likelihoods.length
  const kept: Float32Array[] = []
  const scales: number[] = []
  const total = logTotal(lattice, (at, alpha, logScale) => {
    kept[at] = new Float32Array(alpha)
    scales[at] = logScale
  })
  runForward(mirrored(lattice), (turned, beta, logScale) => {
    const at = count - 1 - turned
    const alpha = kept[at] as Float32Array,
      likelihood = likelihoods[at] as Float64Array,
      spread = spreads[at] as Spread
    const factor = weight * Math.exp((scales[at] ?? 0) + logScale - total)
    for (let cell = 0; cell < cells; cell++) {
      const held = likelihood[cell] ?? 0
      if (!held) continue
      const share = ((alpha[cell] ?? 0) * (beta[cells - 1 - cell] ?? 0) * factor) / held
      if (share > LEAST_SHARE) spread.add(cell, share)
    }
  })
}

function told(boundary: Boundary, spread: Spread, stepMs: Ms, marks: readonly Mark[]): Posterior {
  const cells = spread.cells()
  const sharp = windows(cells, TONE_BOUND_MS / stepMs)
  const tone = sharp[0] && nearest(marks, 'beep', sharp[0].mean * stepMs)
  const found = tone ? sharp : windows(cells, LOOSE_BOUND_MS / stepMs)
  const looseMs = (found[0]?.mean ?? 0) * stepMs
  // What was heard stands where it was heard, however even the clock would have it; a caption's own time is too rough.
  const spoken = nearest(marks, 'word', looseMs) ?? nearest(marks, 'sample', looseMs)
  const call = spoken ?? nearest(marks, 'caption', looseMs)
  const heardAt = (tone ?? spoken)?.atMs
  return {
    boundary,
    instants: found.map(({ mean, mass }, index) => ({
      footageMs: Math.round(index === 0 && heardAt !== undefined ? heardAt : mean * stepMs),
      mass: Math.min(1, mass),
    })),
    sigmaMs: Math.round(Math.hypot((found[0]?.sigma ?? 0) * stepMs, tone?.spreadMs ?? 0)),
    evidence: [tone ?? call].flatMap((mark) => mark?.kind ?? []),
  }
}

function nearest(marks: readonly Mark[], kind: Mark['kind'], atMs: Ms): Mark | undefined {
  const off = (one: Mark): Ms => Math.abs(one.atMs - atMs)
  const near = marks.filter((one) => one.kind === kind && off(one) <= SAME_MS[kind])
  return near.sort((one, other) => off(one) - off(other))[0]
}

interface Window {
  mass: Share
  mean: number
  sigma: number
}

/** The heaviest stretches of `reach` cells to either side, none touching another, heaviest first. */
function windows(cells: readonly [number, number][], reach: number): Window[] {
  let left = cells
  const found: Window[] = []
  while (found.length < MOST_INSTANTS && left.length) {
    const [from, to] = heaviest(left, 2 * reach)
    const held = left.slice(from, to)
    const mass = held.reduce((sum, [, share]) => sum + share, 0)
    if (mass < LEAST_MASS) break
    const mean = held.reduce((sum, [cell, share]) => sum + cell * share, 0) / mass
    const square = held.reduce((sum, [cell, share]) => sum + (cell - mean) ** 2 * share, 0) / mass
    found.push({ mass, mean, sigma: Math.sqrt(square) })
    left = left.filter(([cell]) => Math.abs(cell - mean) > 2 * reach)
  }
  return found
}

function heaviest(cells: readonly [number, number][], width: number): [from: number, to: number] {
  let best: [number, number] = [0, 0],
    most = -1,
    sum = 0,
    from = 0
  cells.forEach(([cell, share], to) => {
    sum += share
    while (cell - (cells[from]?.[0] ?? 0) > width) sum -= cells[from++]?.[1] ?? 0
    if (sum > most) [most, best] = [sum, [from, to + 1]]
  })
  return best
}
