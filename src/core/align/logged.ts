// Lays the floor's own record on a footage. The record knows every change to the millisecond, but in its own time; all
// that is unknown is where in the footage it began, and how the two clocks differ. What was heard says that.
import { ofKind, type Evidence, type EvidenceKind, type EvidenceOf } from '../evidence'
import type { Performance } from '../floor/log'
import { timerBeeps, type TimerBeep } from '../hear/timerBeeps'
import { Problem } from '../problem'
import type { Kind, Segment } from '../score/segment'
import type { Ms, Ppm, Share } from '../units'
import { tieKey } from './boundaries'
import { calibrated } from './calibration'
import { filesInRow } from '../filesInRow'
import { joinedReel, type ReelFile } from './reel'
import { matchEvidence, type FoundStitch, type Matched } from './sync'
import { SURE, wasNotDone, type Tie } from './ties'

/**
 * `placed`: its changes are tied. `unplaced`: nothing that was heard says where it lies. `other`: what was heard is
 * sure, and not as the record has it: it is of another session.
 */
export type LogFit = 'placed' | 'unplaced' | 'other'

export interface LoggedMatch extends Matched {
  log: LogFit
  /** What was done and is no longer planned, by segment id; it is tied to nothing. */
  gone: string[]
}

/** What was matched, and what became of the floor's record; null where there was none. */
export interface FloorAnswer {
  floor: Pick<LoggedMatch, 'log' | 'gone'> | null
}

/** A sure tie that strays further from the record than this does not agree with it: by tones, and by anything else. */
const STRAYS_MS: Record<'tone' | 'other', Ms> = { tone: 120, other: 900 }
/** Of the sure ties so many agree where the record is of this session. */
const LEAST_AGREEING: Share = 0.75
/** How far a change may lie from where one clock has it. */
const LOG_SIGMA_MS: Ms = 15
/** Less likely than this, no place is taken. */
const LEAST_PLACED: Share = 0.5

/**
 * The changes of a session that was run on the floor, in a footage of it.
 * @param segments the plan as it is now; the record has the one that was run.
 * @param hands ties that hold whatever was heard or written down.
 * @throws Problem `log-of-other-plan` where nothing of what was done is planned.
 */
export function matchLogged(
  segments: readonly Segment[],
  performance: Performance,
  { evidence, footageMs }: ReelFile,
  tied: readonly Tie[] = [],
): LoggedMatch {
  const hands = tied.filter((tie) => !wasNotDone(tie))
  const known = new Set(segments.map(({ id }) => id))
  refuseOtherPlan(segments, performance)
  const gone = performance.stands.filter(({ segmentId }) => !known.has(segmentId)).map(({ segmentId }) => segmentId)
  const alone = matchEvidence(segments, { evidence, footageMs }, tied)
  const changes = changesOf(performance)
  const placed = byHand(changes, hands) ?? byMarks(changes, evidence, footageMs)
  if (!placed) return { ...alone, log: 'unplaced', gone }
  const handed = new Set(hands.map(tieKey))
  const at = (atMs: Ms): Ms => Math.round(placed.offsetMs + atMs * (1 + placed.driftPpm / 1e6))
  const found = standingTies(performance)
    .filter((tie) => known.has(tie.segmentId) && !handed.has(tieKey(tie)))
    .map((tie): FoundStitch => ({
      ...{ segmentId: tie.segmentId, edge: tie.edge, footageMs: at(tie.atMs), origin: 'heard' },
      ...{ confidence: placed.confidence, evidence: ['log', ...placed.by], sigmaMs: LOG_SIGMA_MS, alternatives: [] },
    }))
    .filter((tie) => tie.footageMs >= 0 && tie.footageMs <= footageMs)
  if (!agree(alone, ofKind(evidence, 'chirp'), changes, at)) return { ...alone, log: 'other', gone }
  return { found, likeness: placed.confidence, doubtful: false, log: 'placed', gone }
}

/** @throws Problem `log-of-other-plan` where nothing of what was done is planned. */
export function refuseOtherPlan(segments: readonly Segment[], performance: Performance): void {
  if (performance.stands.length && !isOfPlan(segments, performance)) throw new Problem({ code: 'log-of-other-plan' })
}

/** Whether anything that was done is planned. */
export function isOfPlan(segments: readonly Segment[], { stands }: Performance): boolean {
  const known = new Set(segments.map(({ id }) => id))
  return stands.some(({ segmentId }) => known.has(segmentId))
}

/** The same over the files of a reel, each with a beginning of its own; times are those of the files in a row. */
export function matchReelLogged(
  segments: readonly Segment[],
  performance: Performance,
  files: readonly ReelFile[],
  hands: readonly Tie[] = [],
): LoggedMatch {
  const { beginMs, placeOf } = filesInRow(files.map(({ footageMs }) => footageMs))
  const [only] = files
  if (only && files.length === 1) return matchLogged(segments, performance, only, hands)
  const matches = files.map((file, at) => {
    const within = hands.flatMap((tie) => {
      const { footage, footageMs } = placeOf(tie.footageMs)
      return footage === at ? [{ ...tie, footageMs }] : []
    })
    return matchLogged(segments, performance, file, within)
  })
  const placed = matches.filter(({ log }) => log === 'placed')
  const fit = matches.some(({ log }) => log === 'other') ? 'other' : 'unplaced'
  const { gone = [] } = matches[0] ?? {}
  if (!placed.length) {
    return { ...matchEvidence(segments, joinedReel(files), hands), log: fit, gone }
  }
  const found = new Map<string, FoundStitch>()
  matches.forEach((match, file) => {
    if (match.log !== 'placed') return
    for (const tie of match.found)
      if (!found.has(tieKey(tie)))
        found.set(tieKey(tie), { ...tie, footageMs: tie.footageMs + (beginMs[file] ?? 0), alternatives: [] })
  })
  const likeness = Math.max(...placed.map((match) => match.likeness))
  return { found: [...found.values()], likeness, doubtful: false, log: 'placed', gone }
}

/**
 * Whether what is sure without the record has its changes where the record has them, in whichever take: chirps, which
 * are what they are, and ties that were heard alone.
 */
function agree(
  { found }: Matched,
  chirps: readonly EvidenceOf<'chirp'>[],
  changes: readonly Change[],
  at: (atMs: Ms) => Ms,
): boolean {
  const coded = chirps.flatMap(({ code, atMs }): boolean[] => {
    const own = changes.filter((change) => change.code === code)
    return own.length ? [own.some((change) => Math.abs(at(change.atMs) - atMs) <= STRAYS_MS.tone)] : []
  })
  const instants = new Map<string, Ms[]>()
  for (const { segmentId, atMs } of changes) instants.set(segmentId, [...(instants.get(segmentId) ?? []), at(atMs)])
  const offs = found.flatMap((tie): boolean[] => {
    const logged = instants.get(tie.segmentId)
    if (tie.confidence < SURE || tie.edge !== 'start' || !logged) return []
    const most = STRAYS_MS[tie.evidence.includes('beep') ? 'tone' : 'other']
    return [logged.some((ms) => Math.abs(tie.footageMs - ms) <= most)]
  })
  return mostAgree(coded) && mostAgree(offs)
}

const mostAgree = (all: readonly boolean[]): boolean => all.filter(Boolean).length >= LEAST_AGREEING * all.length

/** The boundaries of what stands, in session time. */
function standingTies({ segments, stands }: Performance): { segmentId: string; edge: Tie['edge']; atMs: Ms }[] {
  const last = segments.at(-1)
  return stands.flatMap(({ segmentId, fromMs, toMs }) => [
    { segmentId, edge: 'start' as const, atMs: fromMs },
    ...(segmentId === last?.id ? [{ segmentId, edge: 'end' as const, atMs: toMs }] : []),
  ])
}

/** An instant at which the floor went from one segment to another, whether it stands or not. */
interface Change {
  atMs: Ms
  segmentId: string
  /** Number of its chirp. */
  code: number
  kind: Kind
}

function changesOf({ segments, takes }: Performance): Change[] {
  const places = new Map(segments.map((segment, place) => [segment.id, { code: place + 1, kind: segment.kind }]))
  return takes.flatMap(({ segmentId, fromMs }) => {
    const place = places.get(segmentId)
    return place ? [{ ...place, segmentId, atMs: fromMs }] : []
  })
}

interface Placed {
  /** Footage time of session time 0. */
  offsetMs: Ms
  driftPpm: Ppm
  confidence: Share
  by: EvidenceKind[]
}

function byHand(changes: readonly Change[], hands: readonly Tie[]): Placed | null {
  const offsets = hands.flatMap(({ segmentId, edge, footageMs }) => {
    const last = edge === 'start' ? changes.findLast((change) => change.segmentId === segmentId) : undefined
    return last ? [footageMs - last.atMs] : []
  })
  const middle = offsets.sort((one, other) => one - other)[offsets.length >> 1]
  return middle === undefined ? null : { offsetMs: middle, driftPpm: 0, confidence: calibrated(1), by: [] }
}

/** A mark in the footage that may be one of some changes, and how exactly it would lie there. */
interface Mark {
  atMs: Ms
  sigmaMs: Ms
  /** How probable it is that it marks a change at all. */
  weight: Share
  kind: EvidenceKind
  may: (change: Change) => boolean
}

/** How far a mark lies from the floor's change, besides how well it was heard: a coach calls after the tone. */
const BESIDE_MS = { beep: 20, chirp: 4, call: 300, motion: 500 } as const
const isRest = ({ kind }: Change): boolean => kind === 'rest' || kind === 'break'
const isWork = ({ kind }: Change): boolean => kind === 'work'

/** A tone that counts down is none of a change; what timers do with tones says which does. */
const toneMark = ({ atMs, spreadMs, strength, boundaryLikelihood }: TimerBeep): Mark => ({
  ...{ atMs, sigmaMs: Math.hypot(spreadMs, BESIDE_MS.beep), weight: 0.6 * strength * boundaryLikelihood },
  ...{ kind: 'beep', may: () => true },
})

function markOf(one: Evidence): Mark | null {
  const base = (besideMs: Ms, may: Mark['may'], weight: Share): Mark => ({
    ...{ atMs: one.atMs, sigmaMs: Math.hypot(one.spreadMs, besideMs), weight: weight * one.strength },
    ...{ kind: one.kind, may },
  })
  switch (one.kind) {
    case 'chirp':
      return base(BESIDE_MS.chirp, ({ code }) => code === one.code, 0.9)
    case 'word':
    case 'sample':
    case 'caption':
      if (one.word !== 'work' && one.word !== 'rest') return null
      return base(BESIDE_MS.call, one.word === 'work' ? isWork : isRest, 0.6)
    case 'motion':
      return base(BESIDE_MS.motion, one.begins ? isWork : isRest, 0.3)
    default:
      return null
  }
}

/** Places are tried this far apart, and clocks. */
const CELL_MS: Ms = 10
const DRIFTS_PPM: readonly Ppm[] = [-120, -60, 0, 60, 120]
/** Marks of one change know of each other: each counts for less than one alone would. */
const TEMPER = 0.7
/** What lies within this of the best place is that place: where tones or chirps say it, and where only calls do. */
const SAME_PLACE_MS: Record<'exact' | 'called', Ms> = { exact: 100, called: 400 }
const EXACT_MS: Ms = 40

/**
 * Where the record lies, by Bayes: every mark is either of a change, and then as near to it as its kind lies, or
 * anywhere in the footage.
 */
function byMarks(changes: readonly Change[], evidence: readonly Evidence[], footageMs: Ms): Placed | null {
  const tones = timerBeeps(ofKind(evidence, 'beep')).map(toneMark)
  const marks = [...evidence.flatMap((one) => markOf(one) ?? []), ...tones].filter(({ weight }) => weight > 0)
  const first = changes[0],
    last = changes.at(-1)
  if (!first || !last || !marks.length) return null
  const fromMs = -last.atMs
  const cells = Math.ceil((footageMs - first.atMs - fromMs) / CELL_MS) + 1
  const fields = DRIFTS_PPM.map((driftPpm) => ({
    driftPpm,
    field: fieldOf(changes, marks, { ...{ fromMs, cells, footageMs }, driftPpm }),
  }))
  const best = fields
    .map(({ driftPpm, field }) => ({
      driftPpm,
      cell: field.reduce((top, value, cell) => (value > (field[top] ?? 0) ? cell : top), 0),
      field,
    }))
    .reduce((top, one) => ((one.field[one.cell] ?? 0) > (top.field[top.cell] ?? 0) ? one : top))
  const peak = best.field[best.cell] ?? 0
  const exact = marks.some(({ sigmaMs }) => sigmaMs <= EXACT_MS)
  const reach = Math.round(SAME_PLACE_MS[exact ? 'exact' : 'called'] / CELL_MS)
  let near = 0,
    all = 0
  for (const { field } of fields)
    field.forEach((value, cell) => {
      const weight = Math.exp(TEMPER * (value - peak))
      all += weight
      if (Math.abs(cell - best.cell) <= reach) near += weight
    })
  // Marks that lie nowhere near a change speak against the record as such.
  const against = marks.reduce((sum, { weight }) => sum + Math.log1p(-weight), 0)
  if (near / all < LEAST_PLACED || peak + against <= 0) return null
  const rough = { offsetMs: fromMs + best.cell * CELL_MS, driftPpm: best.driftPpm }
  const { offsetMs, driftPpm, by } = refined(changes, marks, rough)
  return { offsetMs, driftPpm, by, confidence: calibrated(near / all) }
}

interface Field {
  fromMs: Ms
  cells: number
  footageMs: Ms
  driftPpm: Ppm
}

/** How much more probable the marks are with the record begun at each cell than without it, as a logarithm. */
function fieldOf(changes: readonly Change[], marks: readonly Mark[], at: Field): Float64Array {
  const field = new Float64Array(at.cells)
  for (const { atMs, sigmaMs, weight, may } of marks) {
    const can = changes.filter(may)
    const odds = ((weight / (1 - weight)) * at.footageMs) / (Math.max(1, can.length) * sigmaMs * Math.sqrt(2 * Math.PI))
    const reach = Math.ceil((4 * sigmaMs) / CELL_MS)
    for (const change of can) {
      const offsetMs = atMs - change.atMs * (1 + at.driftPpm / 1e6)
      const middle = Math.round((offsetMs - at.fromMs) / CELL_MS)
      for (let cell = Math.max(0, middle - reach); cell <= Math.min(at.cells - 1, middle + reach); cell++) {
        const off = (at.fromMs + cell * CELL_MS - offsetMs) / sigmaMs
        field[cell] = (field[cell] ?? 0) + Math.log1p(odds * Math.exp(-(off * off) / 2))
      }
    }
  }
  return field
}

/** The line through the marks that lie where the record has a change, the exact ones first. */
function refined(
  changes: readonly Change[],
  marks: readonly Mark[],
  rough: Pick<Placed, 'offsetMs' | 'driftPpm'>,
): Omit<Placed, 'confidence'> {
  const pairs = marks.flatMap((mark) =>
    changes.filter(mark.may).flatMap(({ atMs }) => {
      const offMs = mark.atMs - rough.offsetMs - atMs * (1 + rough.driftPpm / 1e6)
      return Math.abs(offMs) <= 3 * mark.sigmaMs + 2 * CELL_MS ? [{ atMs, offMs, mark }] : []
    }),
  )
  const by = [...new Set(pairs.map(({ mark }) => mark.kind))]
  const exact = Math.min(...pairs.map(({ mark }) => mark.sigmaMs)) * 3
  const used = pairs.filter(({ mark }) => mark.sigmaMs <= exact)
  if (!used.length) return { ...rough, by }
  const mean = (valueOf: (pair: (typeof used)[number]) => number): number =>
    used.reduce((sum, pair) => sum + valueOf(pair), 0) / used.length
  const middleMs = mean(({ atMs }) => atMs),
    offMs = mean((pair) => pair.offMs)
  const squares = mean(({ atMs }) => (atMs - middleMs) ** 2)
  // Two marks a minute apart say nothing of a clock.
  const slope =
    used.length >= LEAST_FOR_CLOCK && squares ? mean((one) => (one.atMs - middleMs) * (one.offMs - offMs)) / squares : 0
  return { offsetMs: rough.offsetMs + offMs - slope * middleMs, driftPpm: rough.driftPpm + slope * 1e6, by }
}
const LEAST_FOR_CLOCK = 6
