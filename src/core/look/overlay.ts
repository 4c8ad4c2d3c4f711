// What stands on the picture at an instant, and when it changes. Decided here as data; looks draw it.
import { lastsAsGuessed, lastWorkOf, middleOf } from '../cue/moments'
import { slotEnd, type ShownSegment } from '../cut/cut'
import { lastBegun } from '../lastBegun'
import { castOf, type Cast } from '../score/cast'
import type { Score } from '../score/score'
import type { Segment } from '../score/segment'
import { SECOND, type Ms } from '../units'
import { KIND_NAMES, nameOf } from '../words/en/names'
import { viewerTexts as words } from '../words/en/viewers'
import { cardsOf, type Card, type Cards } from './cards'
import { countersIn, type Counters } from './counters'
import { linesOf, sidesIn, standingAt, type Standing, type ViewerLine } from './viewerLines'

export type Ground = 'work' | 'rest' | 'ready' | 'talk'

export interface OverlayState extends Counters {
  segmentId: string
  ground: Ground
  /** Whole seconds, 1 or more: left, or done where the count goes up. Null where nobody knows when it ends. */
  count: number | null
  way: Score['count']
  /** Steps of the tide staff still above water, 0 to `STAFF_STEPS`; null where nobody knows how long it lasts. */
  staff: number | null
  label: string
  /** What stands for the label where there is little room; empty where nothing shorter is known. */
  short: string
  side: 'left' | 'right' | null
  /** The target; null where none is counted. */
  reps: number | null
  /** The title of the section, and whether it has just begun. */
  section: string
  begins: boolean
  /** What comes next, with its side, or empty. */
  next: string
  /** Planned; null where nothing is, or where nobody knows. */
  nextMs: Ms | null
  /** Whether that is another length than the one before of its kind. */
  nextDiffers: boolean
  /** What matters most first. */
  lines: readonly ViewerLine[]
  /** Hundredths of the whole that are over; null where nobody knows how long it is. */
  passed: number | null
  /** A card with its title first; while it stands, nothing else is shown. */
  card?: readonly string[]
}

/** How a workout is shown, and the facts of its own moves. */
export interface Viewing extends Pick<Score, 'count' | 'countOf' | 'moves'>, Partial<Cards> {
  /** Nobody is seen talking, so talk has its name. Default: it has none. */
  namesTalk?: boolean
}
const USUAL: Viewing = { count: 'down', countOf: 'filmed', moves: [] }
/** Work that ran so near to its plan shows the number that was announced. */
const HOLDS_PLAN_MS: Ms = 1500
/** Where nothing else is wished, no card stands. */
const NO_CARDS: Cards = { caution: 'none', series: { name: '', next: '' } }
/** Nothing is read in less; and what changed faster would flash more than three times a second. */
const LEAST_STAND_MS: Ms = 350
/** How long the title of a section stands. */
const TITLE_MS: Ms = 5 * SECOND

export const STAFF_STEPS = 10
export const PASSED_STEPS = 100

/** A change of the overlay: from `fromMs` on it shows `state`; null shows nothing. */
export interface OverlayChange {
  fromMs: Ms
  state: OverlayState | null
}

/**
 * Everything the overlay will ever show, in order. Digits change at whole seconds before the interval's true end, so
 * that zero falls on the boundary. Work that ran to its plan within a moment shows the planned number, and holds it
 * until the plan has caught up; all else counts what was filmed, unless the workout counts as planned.
 */
export function overlayChanges(lane: readonly ShownSegment[], viewing: Partial<Viewing> = {}): OverlayChange[] {
  const changes: OverlayChange[] = []
  const reader = new LaneReader(lane, { ...USUAL, ...viewing })
  let beginMs: Ms | null = null
  const closeAt = ({ endMs }: ShownSegment, index: number): void => {
    if (index === lane.length - 1) changes.push({ fromMs: endMs, state: null })
  }
  lane.forEach((laid, index) => {
    // What stands before stays; before the first, what comes begins so much earlier.
    if (laid.endMs - laid.startMs < LEAST_STAND_MS) {
      if (!changes.length) beginMs ??= laid.startMs
      return closeAt(laid, index)
    }
    const at = changes.length
    const isSaid = laid.segment.kind === 'talk' && !laid.segment.moves.length
    if (isSaid && !viewing.namesTalk) changes.push({ fromMs: laid.startMs, state: null })
    else changes.push(...reader.changesOf(laid, index))
    const first = changes[at]
    if (first && beginMs !== null) changes[at] = { ...first, fromMs: beginMs }
    beginMs = null
    closeAt(laid, index)
  })
  const all = cardsOf(lane, { ...NO_CARDS, ...viewing }).reduce(
    (before, card) => withCard(before, card, viewing.count ?? USUAL.count),
    changes,
  )
  return all.filter((change, index) => index === 0 || keyOf(change.state) !== keyOf(all[index - 1]?.state ?? null))
}

/** A card over what stands there otherwise, which comes back after it. */
function withCard(changes: readonly OverlayChange[], card: Card, way: Score['count']): OverlayChange[] {
  const { fromMs, untilMs, segmentId, texts } = card
  const state: OverlayState = {
    ...{ segmentId, ground: 'talk', count: null, way, staff: null, label: '', short: '', side: null },
    ...{ reps: null, section: '', begins: false, counters: [], marks: null, lines: [], passed: null, ...NOTHING_NEXT },
    card: texts,
  }
  const before = changes.filter((change) => change.fromMs < fromMs)
  const after = changes.filter((change) => change.fromMs >= untilMs)
  const during = changes.findLast((change) => change.fromMs < untilMs)?.state ?? null
  const goesOn = after[0]?.fromMs === untilMs ? [] : [{ fromMs: untilMs, state: during }]
  return [...before, { fromMs, state }, ...goesOn, ...after]
}

/** Two equal keys are the same picture. */
export const keyOf = (state: OverlayState | null): string => (state ? JSON.stringify(state) : '')

/** The overlay at an instant. */
export const overlayAt = (changes: readonly OverlayChange[], atMs: Ms): OverlayState | null =>
  changes[lastBegun(changes, ({ fromMs }) => fromMs, atMs)]?.state ?? null

/** Reads states off a lane. */
class LaneReader {
  private readonly counters: Counters[]
  private readonly cast: Cast
  /** Of each, whether it is of another length than the one before of its kind. */
  private readonly differs: boolean[]
  private readonly lastWork: number
  private readonly fromMs: Ms
  private readonly lengthMs: Ms
  /** Where something lasts as long as its viewer wants, nobody knows how long the whole is. */
  private readonly isWholeKnown: boolean

  constructor(
    private readonly lane: readonly ShownSegment[],
    private readonly viewing: Viewing,
  ) {
    this.counters = countersIn(lane)
    this.cast = castOf(viewing.moves)
    this.differs = differing(lane)
    this.lastWork = lastWorkOf(lane)
    this.fromMs = lane[0]?.startMs ?? 0
    this.lengthMs = (lane.at(-1)?.endMs ?? 0) - this.fromMs
    this.isWholeKnown = this.lengthMs > 0 && !lane.some(lastsAsGuessed)
  }

  changesOf(laid: ShownSegment, index: number): OverlayChange[] {
    const clock = clockOf(this.lane, index, this.viewing.countOf)
    const steady = this.steadyOf(laid, index)
    const next = this.lane[comingUp(this.lane, index) ?? -1]
    const lines = linesOf(laid, {
      ...{ cast: this.cast, next, isLast: index === this.lastWork, isKnown: !clock.isGuess },
    })
    return instantsIn(laid, clock).map((fromMs) => ({
      fromMs,
      state: this.stateAt(laid, { steady, lines, clock }, fromMs),
    }))
  }

  /** What stays as it is while an interval lasts. */
  private steadyOf({ segment }: ShownSegment, index: number): Steady {
    const next = segment.kind === 'work' ? following(this.lane, index) : comingUp(this.lane, index)
    return {
      ...{ segmentId: segment.id, ground: groundOf(segment), label: segment.label || KIND_NAMES[segment.kind] },
      short: shortOf(segment, this.cast),
      ...{ reps: segment.moves.length < 2 ? segment.reps : null, section: segment.section },
      ...(this.counters[index] ?? { counters: [], marks: null }),
      ...(segment.kind === 'talk' ? NOTHING_NEXT : this.nextOf(next)),
    }
  }

  private nextOf(next: number | undefined): Pick<OverlayState, 'next' | 'nextMs' | 'nextDiffers'> {
    const segment = this.lane[next ?? -1]?.segment
    if (next === undefined || !segment) return NOTHING_NEXT
    const nextMs = segment.estimated ? null : segment.durationMs
    return { next: nameOf(segment), nextMs, nextDiffers: nextMs !== null && (this.differs[next] ?? false) }
  }

  private stateAt(
    { segment, startMs, endMs }: ShownSegment,
    { steady, lines, clock }: { steady: Steady; lines: readonly Standing[]; clock: Clock },
    atMs: Ms,
  ): OverlayState {
    const firstHalf = atMs < middleOf(startMs, endMs)
    return {
      ...steady,
      count: clock.isGuess ? null : countAt(atMs, { ...clock, way: this.viewing.count }),
      way: this.viewing.count,
      staff: clock.isGuess ? null : staffAt(atMs, clock),
      label: segment.reverses && !firstHalf ? `${words.otherWay}: ${steady.label}` : steady.label,
      side: sidesIn(segment).at(firstHalf ? 0 : -1) ?? null,
      begins: atMs - this.sectionFrom(segment) < TITLE_MS,
      lines: standingAt(lines, atMs),
      passed: this.isWholeKnown ? Math.floor(((atMs - this.fromMs) / this.lengthMs) * PASSED_STEPS) : null,
    }
  }

  private readonly begun = new Map<string, Ms>()
  private sectionFrom({ sectionKey, kind }: Segment): Ms {
    const known = this.begun.get(sectionKey)
    if (known !== undefined) return known
    const isOfIt = ({ segment }: ShownSegment): boolean => segment.sectionKey === sectionKey && segment.kind !== 'talk'
    const fromMs = (kind === 'talk' ? undefined : this.lane.find(isOfIt)?.startMs) ?? -Infinity
    if (kind !== 'talk') this.begun.set(sectionKey, fromMs)
    return fromMs
  }
}

type Steady = Omit<OverlayState, 'count' | 'way' | 'staff' | 'side' | 'begins' | 'lines' | 'passed'>
const NOTHING_NEXT = { next: '', nextMs: null, nextDiffers: false } as const

const GROUND_OF: Record<Segment['kind'], Ground> = {
  ...{ talk: 'talk', lead: 'ready', work: 'work', rest: 'rest', break: 'rest' },
}
const groundOf = ({ kind }: Segment): Ground => GROUND_OF[kind]

/** A shorter name of one move; of several, of each. What a name is only taken for gives it none. */
function shortOf({ label, moves }: Segment, cast: Cast): string {
  const short = moves.map((name) => cast(name).short || name).join(' + ')
  return short && short.length < label.length ? short : ''
}

/** The clock that viewers read: that of the segment, or of the slot that it is part of. */
interface Clock {
  startMs: Ms
  endMs: Ms
  /** The length that the count begins with; 0 where there is none. */
  plannedMs: Ms
  /** Nobody knows when it ends: it is counted up, if at all. */
  isGuess: boolean
}

function clockOf(lane: readonly ShownSegment[], index: number, countOf: Score['countOf']): Clock {
  const laid = lane[index]
  if (!laid) return { startMs: 0, endMs: 0, plannedMs: 0, isGuess: false }
  const { segment, startMs, endMs } = laid
  const { slot } = segment
  if (slot) {
    const end = slotEnd(lane, index)
    return { startMs: Math.min(startMs, end - slot.ofMs), endMs: end, plannedMs: slot.ofMs, isGuess: false }
  }
  // Work at one's own pace has no clock of its own; its planned length is a guess, and never counted. Nor is what lasts
  // until its viewer is ready, unless footage tells how long it was.
  if (segment.pace === 'own' || segment.kind === 'talk' || lastsAsGuessed(laid))
    return { startMs, endMs, plannedMs: 0, isGuess: true }
  const ranToPlan = segment.kind === 'work' && Math.abs(endMs - startMs - segment.durationMs) <= HOLDS_PLAN_MS
  // A fraction of a second at the start shows no number of its own.
  const filmedMs = Math.max(SECOND, Math.round((endMs - startMs) / SECOND) * SECOND)
  const plannedMs = ranToPlan || countOf === 'planned' ? segment.durationMs : filmedMs
  return { startMs, endMs, plannedMs, isGuess: false }
}

function instantsIn({ segment, startMs, endMs }: ShownSegment, clock: Clock): Ms[] {
  const instants = [startMs]
  if (segment.side === 'switch' || segment.reverses) instants.push(middleOf(startMs, endMs))
  if (clock.isGuess) for (let at = startMs + 1000; at < endMs; at += 1000) instants.push(at)
  else for (let at = clock.endMs - 1000; at > startMs; at -= 1000) if (at < endMs) instants.push(at)
  return instants.sort((one, other) => one - other)
}

function countAt(atMs: Ms, { startMs, endMs, plannedMs, way }: Clock & { way: Score['count'] }): number {
  const left = Math.ceil((endMs - atMs) / 1000)
  const planned = Math.ceil(plannedMs / 1000)
  const down = Math.max(1, planned ? Math.min(left, planned) : left)
  // Counting up, the last second bears the whole length.
  return way === 'down' ? down : Math.max(1, (planned || Math.ceil((endMs - startMs) / 1000)) - down + 1)
}

const staffAt = (atMs: Ms, { startMs, endMs }: Clock): number =>
  Math.min(STAFF_STEPS, Math.ceil(((endMs - atMs) / Math.max(1, endMs - startMs)) * STAFF_STEPS))

/** Of each interval, whether the plan gives it another length than the one before of its kind. */
function differing(lane: readonly ShownSegment[]): boolean[] {
  const before = new Map<Segment['kind'], Ms>()
  return lane.map(({ segment: { kind, durationMs } }) => {
    const differs = before.get(kind) !== durationMs
    before.set(kind, durationMs)
    return differs
  })
}

/** The next interval that lasts, whatever it is; nothing where talk or the end comes first. */
function following(lane: readonly ShownSegment[], index: number): number | undefined {
  for (let ahead = index + 1; ahead < lane.length; ahead++) {
    const laid = lane[ahead]
    if (laid && laid.endMs > laid.startMs) return laid.segment.kind === 'talk' ? undefined : ahead
  }
  return undefined
}

/**
 * The next work, over a rest between: that is what a viewer has to get ready for. Nothing where talk or the end comes
 * first.
 */
function comingUp(lane: readonly ShownSegment[], index: number): number | undefined {
  for (let ahead = index + 1; ahead < lane.length; ahead++) {
    const laid = lane[ahead]
    if (!laid || laid.segment.kind === 'talk') return undefined
    if (laid.segment.kind === 'work' && laid.endMs > laid.startMs) return ahead
  }
  return undefined
}
