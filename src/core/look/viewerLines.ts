// Lines that viewers read beside the move: what to fetch, the easier way, what part of it is reached. Each stands for
// as long as it helps, and is told only where it is known.
import { beginsLastRound, middleIn, middleOf, type Middle } from '../cue/moments'
import { WATER_MS } from '../cue/rules/water'
import type { ShownSegment } from '../cut/cut'
import type { Cast } from '../score/cast'
import { weightText } from '../score/formats/station'
import type { Segment } from '../score/segment'
import { capital } from '../score/vocabulary'
import { SECOND, type Ms } from '../units'
import { viewerTexts as words } from '../words/en/viewers'

/** Why a line stands there; what matters more stands first. */
export const LINE_KINDS = [
  'switch',
  'last',
  'halfway',
  'pace',
  'reps',
  'stands',
  'fetch',
  'gear',
  'water',
  'note',
  'easier',
  'harder',
] as const
export interface ViewerLine {
  kind: (typeof LINE_KINDS)[number]
  text: string
}

type CalledSide = 'left' | 'right'

export interface Standing extends ViewerLine {
  fromMs: Ms
  untilMs: Ms
}

/** How long the easier way stands from the beginning of each interval, and a call from its instant. */
const EASIER_MS: Ms = 8 * SECOND
const CALL_MS: Ms = 3 * SECOND
const MIDDLES: Record<Middle, ViewerLine> = {
  otherSide: { kind: 'switch', text: words.otherSide },
  otherWay: { kind: 'switch', text: words.otherWay },
  halfway: { kind: 'halfway', text: words.halfway },
}

interface Telling {
  cast: Cast
  next: ShownSegment | undefined
  /** It is the last work of all. */
  isLast: boolean
  /** Somebody knows when it ends. */
  isKnown: boolean
}

/** All lines of an interval, each with when it stands. @param next the work that comes next, if any. */
export function linesOf(laid: ShownSegment, { cast, next, isLast, isKnown }: Telling): Standing[] {
  const { segment, startMs, endMs } = laid
  const whole = { fromMs: startMs, untilMs: endMs }
  const lines: (ViewerLine & Partial<Standing>)[] = []
  if (segment.kind === 'work') {
    lines.push(...workLines(laid, isLast, isKnown), ...standsLines(laid, cast))
    const gear = gearOf(segment, cast)
    if (gear) lines.push({ kind: 'gear', text: gear })
    lines.push(...wayLines(segment, cast, { fromMs: startMs, untilMs: startMs + EASIER_MS }).filter(isEasier))
  } else if (segment.kind === 'talk') lines.push(...wayLines(segment, cast, whole))
  else {
    if (segment.pace === 'open' && !isKnown) lines.push({ kind: 'pace', text: words.untilReady })
    const gear = next ? gearOf(next.segment, cast) : ''
    if (gear) lines.push({ kind: 'fetch', text: words.fetch(gear) })
    if (segment.kind === 'break' && endMs - startMs >= WATER_MS) lines.push({ kind: 'water', text: words.water })
    if (segment.note) lines.push({ kind: 'note', text: segment.note })
  }
  return lines.map((line) => ({ ...whole, ...line }))
}

const isEasier = ({ kind }: ViewerLine): boolean => kind === 'easier'

function workLines(laid: ShownSegment, isLast: boolean, isKnown: boolean): (ViewerLine & Partial<Standing>)[] {
  const { segment, startMs, endMs } = laid
  const lines: (ViewerLine & Partial<Standing>)[] = []
  const called = (kind: ViewerLine['kind'], text: string, fromMs: Ms): void =>
    void lines.push({ kind, text, fromMs, untilMs: fromMs + CALL_MS })
  if (segment.pace === 'own') lines.push({ kind: 'pace', text: words.ownPace })
  if (segment.pace === 'open' && !isKnown) lines.push({ kind: 'pace', text: words.untilReady })
  const middle = middleIn(laid)
  if (middle) called(MIDDLES[middle].kind, MIDDLES[middle].text, middleOf(startMs, endMs))
  if (isLast) called('last', words.lastOne, startMs)
  else if (beginsLastRound(segment)) called('last', words.lastOf(segment.words.round.one), startMs)
  if (segment.repIs) lines.push({ kind: 'reps', text: segment.repIs })
  if (segment.side === 'both') lines.push({ kind: 'note', text: words.both })
  return lines
}

/** Which leg bears it, on each side that is called. Of several moves nobody would know which one is meant. */
function standsLines({ segment, startMs, endMs }: ShownSegment, cast: Cast): Standing[] {
  const [name, more] = segment.moves
  const facts = name === undefined || more !== undefined ? null : cast(name)
  if (facts?.sure !== 'known' || facts.standingLeg === 'unknown') return []
  const middleMs = middleOf(startMs, endMs)
  return sidesIn(segment).map((side, half) => {
    const leg = facts.standingLeg === 'same' ? side : otherSide(side)
    const fromMs = half === 0 ? startMs : middleMs
    return { kind: 'stands', text: words.standOn(leg), fromMs, untilMs: fromMs + EASIER_MS }
  })
}

const otherSide = (side: CalledSide): CalledSide => (side === 'left' ? 'right' : 'left')

/** The sides that are called, one after the other. */
export function sidesIn({ side, firstSide }: Segment): CalledSide[] {
  if (side === 'switch') return [firstSide, otherSide(firstSide)]
  return side === 'left' || side === 'right' ? [side] : []
}

/** "6 kg, water jug". Gear of a move that is only guessed is not told to somebody who cannot look it up. */
function gearOf(segment: Segment, cast: Cast): string {
  const known = segment.moves.map(cast).flatMap(({ sure, gear }) => (sure === 'known' ? gear : []))
  const all = [...(segment.weight ? [weightText(segment.weight)] : []), ...new Set(known)].join(', ')
  return capital(all)
}

/** Easier and harder ways of what is done or shown; of several moves, each by its name. */
function wayLines(segment: Segment, cast: Cast, { fromMs, untilMs }: { fromMs: Ms; untilMs: Ms }): Standing[] {
  const facts = segment.moves.map(cast).filter(({ sure }) => sure === 'known')
  const named = (name: string, how: string): string => (segment.moves.length > 1 ? `${name}: ${how}` : how)
  return facts.flatMap(({ name, easier, harder }): Standing[] => [
    ...(easier ? [{ kind: 'easier' as const, text: words.easier(named(name, easier)), fromMs, untilMs }] : []),
    ...(harder ? [{ kind: 'harder' as const, text: words.harder(named(name, harder)), fromMs, untilMs }] : []),
  ])
}

/** What stands at an instant, what matters most first. */
export const standingAt = (lines: readonly Standing[], atMs: Ms): ViewerLine[] =>
  lines
    .filter(({ fromMs, untilMs }) => fromMs <= atMs && atMs < untilMs)
    .map(({ kind, text }) => ({ kind, text }))
    .sort((one, other) => LINE_KINDS.indexOf(one.kind) - LINE_KINDS.indexOf(other.kind))
