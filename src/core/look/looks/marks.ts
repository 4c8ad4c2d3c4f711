// Marks that several looks draw alike.
import { viewerTexts as words } from '../../words/en/viewers'
import type { Marks } from '../counters'
import { PASSED_STEPS, type OverlayState } from '../overlay'
import { FONTS } from '../palette'
import { drawTypeset, faceAt, LEADING, typeset, type Face, type Typeset } from '../typeset'
import type { ViewerLine } from '../viewerLines'
import type { Part, Pen } from './part'

export const DISPLAY: Face = `400 %px "${FONTS.display}"`
export const STRONG: Face = `700 %px "${FONTS.text}"`
export const PLAIN: Face = `500 %px "${FONTS.text}"`

/** Of what stays as it is while a count runs. */
export const plateKey = ({ count, staff: _staff, passed: _passed, segmentId: _id, ...plate }: OverlayState): string =>
  JSON.stringify([plate, count === null])

export const countKey = ({ ground, count, staff, reps }: OverlayState): string =>
  JSON.stringify([ground, count, staff, count === null ? reps : null])

/** A count, or the reps that stand in its place where nobody counts. */
export const hasCount = ({ count, reps }: OverlayState): boolean => count !== null || reps !== null

/** Reps beside the move, while a count has their place; empty where there are none. */
export const repsBeside = ({ reps, count }: OverlayState): string => (reps !== null && count !== null ? `${reps} ` : '')

export function countText({ count, reps }: OverlayState): string {
  const value = count ?? reps ?? 0
  return count === null || value < 600 ? String(value) : `${Math.ceil(value / 60)}m`
}

/** Two digits are as large as can be; more are as wide as the two. */
export function sizeByLetters(state: OverlayState, size: number): number {
  const { length } = countText(state)
  return length < 3 ? size : length < 4 ? 12.4 : 8.6
}

interface CountPlace {
  /** The middle of the digits. */
  x: number
  y: number
  size: number
  colour: string
  /** Where reps stand in the place of a count, so much higher, with their word at `wordY`. */
  reps: { raised: number; wordSize: number; wordY: number }
}

/** Half of a digit's height, in shares of its font's size. */
const HALF_DIGIT = 0.355

/** The count, or reps with their word below. */
export function drawCountText({ surface }: Pen, state: OverlayState, { x, y, size, colour, reps }: CountPlace): void {
  const areReps = state.count === null
  surface.fillStyle = colour
  surface.textAlign = 'center'
  surface.textBaseline = 'alphabetic'
  surface.font = faceAt(DISPLAY, size)
  surface.fillText(countText(state), x, y + size * HALF_DIGIT - (areReps ? reps.raised : 0))
  if (!areReps) return
  surface.font = faceAt(STRONG, reps.wordSize)
  surface.fillText(words.reps, x, reps.wordY)
}

/** "Next: Keel hold, left, 40 s"; the length only where it is another than before. */
export const nextOf = ({ next, nextMs, nextDiffers }: OverlayState): string =>
  `${words.next(next)}${nextMs !== null && nextDiffers ? `, ${words.length(nextMs)}` : ''}`

export const hasCounters = ({ counters, marks }: OverlayState): boolean => counters.length > 0 || marks !== null

/** How much more room a text takes than one line of it would. */
export const beyond = (set: Typeset | null, size: number): number => Math.max(0, (set?.height ?? 0) - size * LEADING)

/** Calls pass; what they stand beside is there all the time. */
const CALLS: ReadonlySet<ViewerLine['kind']> = new Set(['switch', 'last', 'halfway'])

export interface Strip {
  text: Typeset
  isCall: boolean
}

/** Lines and the title, what matters most first. */
export function stripsOf(
  { surface }: Pen,
  { lines, begins, section }: OverlayState,
  { width, size, least, most }: { width: number; size: number; least: number; most: number },
): Strip[] {
  const title = begins && section ? [{ kind: 'title' as const, text: section }] : []
  return [...lines.slice(0, most - title.length), ...title].map(({ kind, text }) => ({
    isCall: kind !== 'title' && CALLS.has(kind),
    text: typeset(surface, STRONG, [text], { width, size, least, most: 3 * size }),
  }))
}

const STRIP_PADDING = 1.2
export const stripHigh = ({ text }: Strip): number => text.height + STRIP_PADDING

/** A strip of paper from the picture's left edge on. @param edge before and after its text. */
export function drawStrip(
  { surface, tone, snap }: Pen,
  strip: Strip,
  { top, edge }: { top: number; edge: number },
): void {
  const { text, isCall } = strip
  surface.fillStyle = isCall ? tone.call : tone.strip
  const from = snap(top)
  surface.fillRect(0, from, text.width + 2 * edge, snap(top + stripHigh(strip)) - from)
  surface.fillStyle = isCall ? tone.callText : tone.stripText
  drawTypeset(surface, STRONG, text, { x: edge, y: top + STRIP_PADDING / 2 + text.height - 0.24 * text.size })
}

const MARK = 1.7,
  MARK_GAP = 0.7
export const marksWide = ({ of }: Marks): number => of * (MARK + MARK_GAP)

/** What is done is full, what runs is in the accent, what is to come is a line at the foot. */
export function drawMarks({ surface, tone }: Pen, { done, of }: Marks, x: number, foot: number): void {
  for (let at = 0; at < of; at++) {
    surface.fillStyle = at === done ? tone.accent : tone.muted
    const high = at <= done ? 2.6 : 0.6
    surface.fillRect(x + at * (MARK + MARK_GAP), foot - high, MARK, high)
  }
}

export const PENNANT_WIDTH = 15.5

/** A pennant that flies to the side that works, with the word beside it: never the mark alone. */
export function drawPennant(
  { surface, tone }: Pen,
  side: 'left' | 'right',
  { x, y: baseline, size = 4.4 }: { x: number; y: number; size?: number },
): void {
  surface.save()
  surface.translate(x, baseline - 0.59 * size)
  surface.scale(size / 4.4, size / 4.4)
  surface.fillStyle = tone.accent
  surface.font = STRONG.replace('%', '4.4')
  surface.textAlign = 'left'
  surface.textBaseline = 'alphabetic'
  const wordAt = side === 'left' ? 4.6 : 0
  const wide = surface.measureText(side).width
  surface.fillText(side, wordAt, 1.55)
  const mast = side === 'left' ? 3.6 : wide + 1.2
  const tip = side === 'left' ? mast - 3.6 : mast + 3.6
  surface.beginPath()
  surface.moveTo(mast, -2.4)
  surface.lineTo(tip, -0.4)
  surface.lineTo(mast, 1.6)
  surface.closePath()
  surface.fill()
  surface.restore()
}

const TIDE_HEIGHT = 1

/** How far the whole session is, along the foot of the picture. */
export const tide: Part = {
  keyOf: ({ passed }) => String(passed),
  boxOf: ({ width, height }, { passed }) =>
    passed === null ? null : { x: 0, y: height - TIDE_HEIGHT, width, height: TIDE_HEIGHT },
  draw({ surface, width, height, tone }, { passed }) {
    if (passed === null) return
    surface.fillStyle = tone.muted
    surface.fillRect(0, height - TIDE_HEIGHT, width, TIDE_HEIGHT)
    surface.fillStyle = tone.accent
    surface.fillRect(0, height - TIDE_HEIGHT, (width * passed) / PASSED_STEPS, TIDE_HEIGHT)
  },
}
