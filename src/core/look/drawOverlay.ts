// Draws the overlay: a printed block with the count, its tide staff, a plate with move, side, counters and what is
// next, and strips of paper above it. The same code draws the preview in the browser and the pictures of the video.
import { viewerTexts as words } from '../words/en/viewers'
import type { Marks } from './counters'
import { PASSED_STEPS, STAFF_STEPS, type OverlayState } from './overlay'
import { FONTS, OVERLAY } from './palette'
import type { Surface } from './surface'
import { drawTypeset, LEADING, typeset, type Face, type Typeset } from './typeset'
import type { ViewerLine } from './viewerLines'

export interface Frame {
  width: number
  height: number
}

/** A part of the overlay that changes on its own: the plate once an interval, the block once a second. */
export interface Layer {
  /** Where it stands in the frame, in whole even pixels. */
  x: number
  y: number
  width: number
  height: number
  /** Equal keys are the same picture. */
  keyOf: (state: OverlayState) => string
  draw: (surface: Surface, state: OverlayState, frame: Frame) => void
}

/**
 * The layers from the lowest up, for drawing them apart; together they are what `drawOverlay` draws.
 * @param states all that will be drawn: no layer is higher than it has to be.
 */
export function overlayLayers(frame: Frame, states: readonly OverlayState[], ruler: Surface): Layer[] {
  const even = (value: number): number => 2 * Math.ceil(value / 2)
  const unit = unitOf(frame)
  const foot = (width: number, height: number): Pick<Layer, 'x' | 'y' | 'width' | 'height'> => ({
    x: 0,
    y: frame.height - Math.min(frame.height, even(height)),
    width: Math.min(frame.width, even(width)),
    height: Math.min(frame.height, even(height)),
  })
  const plates = new Map(states.map((state) => [plateKey(state), state]))
  const width = frame.width / unit
  const highest = Math.max(PLATE_HEIGHT, ...[...plates.values()].map((state) => topOf(plateOf(ruler, state, width))))
  return [
    { ...foot(frame.width, highest * unit), keyOf: plateKey, draw: inUnits(drawPlate) },
    {
      ...foot(BLOCK_WIDTH * unit, BLOCK_HEIGHT * unit),
      keyOf: ({ ground, count, staff, reps }) => JSON.stringify([ground, count, staff, count === null ? reps : null]),
      draw: inUnits(drawBlock),
    },
    { ...foot(frame.width, TIDE_HEIGHT * unit), keyOf: ({ passed }) => String(passed), draw: inUnits(drawTide) },
  ]
}

const plateKey = ({ count, staff: _staff, passed: _passed, segmentId: _id, ...plate }: OverlayState): string =>
  JSON.stringify([plate, count === null])

// All lengths in hundredths of the picture's shorter side, so that an upright phone gets the same sizes.
const BLOCK_HEIGHT = 22
const BLOCK_WIDTH = 25
const STAFF_WIDTH = 3.2
const PLATE_HEIGHT = 15.5
const LABEL_ROOM = 7.4
const TIDE_HEIGHT = 1
const MARGIN = 2.4
/** Above the foot of the last row. */
const FOOT = 2.6
/** Narrower pictures have what is next in a row of its own. */
const NARROW = 130
const ROW_HEIGHT = 5
const STRIP_HEIGHT = 5.6
const STRIP_SIZE = 3.7
const COUNTERS_SIZE = 3.7
const NEXT_SIZE = 3.9
const LEAST_SIZE = 3
const MOST_STRIPS = 3

const DISPLAY: Face = `400 %px "${FONTS.display}"`
const STRONG: Face = `700 %px "${FONTS.text}"`
const PLAIN: Face = `500 %px "${FONTS.text}"`

const unitOf = ({ width, height }: Frame): number => Math.min(width, height) / 100

const GROUNDS: Record<OverlayState['ground'], { block: string; digits: string }> = {
  work: { block: OVERLAY.land, digits: OVERLAY.ink },
  rest: { block: OVERLAY.water, digits: OVERLAY.pale },
  ready: { block: OVERLAY.pale, digits: OVERLAY.ink },
  talk: { block: OVERLAY.ink, digits: OVERLAY.pale },
}

/** Draws one state into a frame whose origin is the picture's top left corner. Clears nothing. */
export function drawOverlay(surface: Surface, state: OverlayState, frame: Frame): void {
  for (const draw of [drawPlate, drawBlock, drawTide]) inUnits(draw)(surface, state, frame)
}

/** Moves the origin to the foot of the frame and the unit to a hundredth of its shorter side. */
function inUnits(draw: (surface: Surface, state: OverlayState, width: number) => void): Layer['draw'] {
  return (surface, state, frame) => {
    const unit = unitOf(frame)
    surface.save()
    surface.translate(0, frame.height)
    surface.scale(unit, unit)
    draw(surface, state, frame.width / unit)
    surface.restore()
  }
}

/** Where everything on the plate stands, by how much room its texts need. */
interface Plate {
  left: number
  height: number
  label: Typeset
  reps: { text: string; width: number }
  counters: Typeset | null
  next: Typeset | null
  isNarrow: boolean
  strips: Strip[]
}
interface Strip {
  text: Typeset
  isCall: boolean
}

const topOf = ({ height, strips }: Plate): number => height + strips.reduce((sum, strip) => sum + heightOf(strip), 0)
const heightOf = ({ text }: Strip): number => STRIP_HEIGHT - STRIP_SIZE * LEADING + text.height
/** Calls pass; what they stand beside is there all the time. */
const CALLS: ReadonlySet<ViewerLine['kind']> = new Set(['switch', 'last', 'halfway'])

function plateOf(ruler: Surface, state: OverlayState, width: number): Plate {
  const isNarrow = width < NARROW
  const left = (hasBlock(state) ? BLOCK_WIDTH : 0) + MARGIN
  const room = width - left - MARGIN
  const text = state.reps !== null && state.count !== null ? `${state.reps} ` : ''
  ruler.font = DISPLAY.replace('%', String(LABEL_ROOM))
  const reps = { text, width: text ? ruler.measureText(text).width : 0 }
  const label = typeset(ruler, DISPLAY, [state.label, state.short], {
    ...{ width: room - reps.width - (state.side ? PENNANT_WIDTH : 0), size: LABEL_ROOM, least: 3.4 },
  })
  const rows = rowsOf(ruler, state, room, isNarrow)
  return {
    ...{ left, label, reps, isNarrow, ...rows },
    height: PLATE_HEIGHT + beyond(label, LABEL_ROOM) + rows.more,
    strips: stripsOf(ruler, state, width - left),
  }
}

/** How much more room a text takes than one line of it would. */
const beyond = (set: Typeset | null, size: number): number => Math.max(0, (set?.height ?? 0) - size * LEADING)

/** Counters, and what is next: beside each other, or one below the other. `more`: how much higher that is. */
function rowsOf(
  ruler: Surface,
  state: OverlayState,
  room: number,
  isNarrow: boolean,
): Pick<Plate, 'counters' | 'next'> & { more: number } {
  const counted = hasCounters(state)
  const beside = counted && state.next && !isNarrow
  const marksWidth = state.marks ? marksWide(state.marks) + 2 : 0
  const counters = state.counters.length
    ? typeset(ruler, PLAIN, [state.counters.join('  /  '), state.counters.at(-1) ?? ''], {
        ...{ width: room * (beside ? 0.48 : 1) - marksWidth, size: COUNTERS_SIZE, least: LEAST_SIZE },
      })
    : null
  const next = state.next
    ? typeset(ruler, STRONG, [nextOf(state)], {
        ...{ width: room * (beside ? 0.5 : 1), size: NEXT_SIZE, least: LEAST_SIZE },
      })
    : null
  const overCounters = beyond(counters, COUNTERS_SIZE),
    overNext = beyond(next, NEXT_SIZE)
  const below = isNarrow && counted && next
  return { counters, next, more: below ? overCounters + ROW_HEIGHT + overNext : Math.max(overCounters, overNext) }
}

const hasCounters = ({ counters, marks }: OverlayState): boolean => counters.length > 0 || marks !== null

const nextOf = ({ next, nextMs, nextDiffers }: OverlayState): string =>
  `${words.next(next)}${nextMs !== null && nextDiffers ? `, ${words.length(nextMs)}` : ''}`

/** From the lowest up: what matters most stands nearest to the move. */
function stripsOf(ruler: Surface, { lines, begins, section }: OverlayState, room: number): Strip[] {
  const title = begins && section ? [{ kind: 'title' as const, text: section }] : []
  return [...lines.slice(0, MOST_STRIPS - title.length), ...title].map(({ kind, text }) => ({
    isCall: kind !== 'title' && CALLS.has(kind),
    text: typeset(ruler, STRONG, [text], { width: room - 2 * MARGIN, size: STRIP_SIZE, least: LEAST_SIZE }),
  }))
}

const hasBlock = ({ count, reps }: OverlayState): boolean => count !== null || reps !== null

function drawPlate(surface: Surface, state: OverlayState, width: number): void {
  const plate = plateOf(surface, state, width)
  const { left, height, label, reps, counters, next, isNarrow } = plate
  surface.fillStyle = OVERLAY.ink
  surface.fillRect(0, -height, width, height)
  surface.textBaseline = 'alphabetic'
  surface.textAlign = 'left'
  const labelFoot = -height + Math.max(LABEL_ROOM * LEADING, label.height) - 0.5
  surface.fillStyle = OVERLAY.land
  surface.font = DISPLAY.replace('%', String(LABEL_ROOM))
  if (reps.text) surface.fillText(reps.text, left, labelFoot)
  surface.fillStyle = OVERLAY.pale
  drawTypeset(surface, DISPLAY, label, { x: left + reps.width, y: labelFoot })
  if (state.side) drawPennant(surface, state.side, left + reps.width + label.width + 2.2, labelFoot)
  const ownRow = isNarrow && next !== null && hasCounters(state)
  const countersFoot = -FOOT - (ownRow ? ROW_HEIGHT + beyond(next, NEXT_SIZE) : 0)
  surface.fillStyle = OVERLAY.muted
  if (counters) drawTypeset(surface, PLAIN, counters, { x: left, y: countersFoot })
  if (state.marks) drawMarks(surface, state.marks, left + (counters ? counters.width + 2 : 0), countersFoot)
  if (next) {
    surface.fillStyle = state.ground === 'work' ? OVERLAY.muted : OVERLAY.land
    surface.textAlign = isNarrow ? 'left' : 'right'
    drawTypeset(surface, STRONG, next, { x: isNarrow ? left : width - MARGIN, y: -FOOT })
  }
  drawStrips(surface, plate)
}

function drawStrips(surface: Surface, { left, height, strips }: Plate): void {
  let foot = -height
  surface.textAlign = 'left'
  for (const strip of strips) {
    const high = heightOf(strip)
    surface.fillStyle = strip.isCall ? OVERLAY.land : OVERLAY.pale
    surface.fillRect(left - MARGIN, foot - high, strip.text.width + 2 * MARGIN, high - 0.5)
    surface.fillStyle = OVERLAY.ink
    drawTypeset(surface, STRONG, strip.text, { x: left, y: foot - 1.9 })
    foot -= high
  }
}

const MARK = 1.7,
  MARK_GAP = 0.7
const marksWide = ({ of }: Marks): number => of * (MARK + MARK_GAP)

/** What is done is full, what runs is framed in the colour of work, what is to come is a line at the foot. */
function drawMarks(surface: Surface, { done, of }: Marks, x: number, foot: number): void {
  for (let at = 0; at < of; at++) {
    const left = x + at * (MARK + MARK_GAP)
    surface.fillStyle = at === done ? OVERLAY.land : OVERLAY.muted
    const high = at <= done ? 2.6 : 0.6
    surface.fillRect(left, foot - high, MARK, high)
  }
}

function drawBlock(surface: Surface, state: OverlayState): void {
  if (!hasBlock(state)) return
  const { block, digits } = GROUNDS[state.ground]
  surface.fillStyle = block
  cutBlock(surface)
  surface.fillStyle = digits
  const value = state.count ?? state.reps ?? 0
  const text = state.count === null || value < 600 ? String(value) : `${Math.ceil(value / 60)}m`
  surface.textAlign = 'center'
  surface.textBaseline = 'alphabetic'
  const size = text.length < 3 ? 19.8 : text.length < 4 ? 12.4 : 8.6
  surface.font = DISPLAY.replace('%', String(size))
  const middle = STAFF_WIDTH + 0.7 + (BLOCK_WIDTH - STAFF_WIDTH) / 2
  const raised = state.count === null ? 2 : 0
  surface.fillText(text, middle, -BLOCK_HEIGHT / 2 + size * 0.355 - raised)
  if (state.count === null) {
    surface.font = STRONG.replace('%', '3.9')
    surface.fillText(words.reps, middle, -FOOT)
  }
  if (state.staff !== null) drawStaff(surface, state.staff, digits)
}

/** The tide staff: ten marks that go under one by one, the time left as a share. */
function drawStaff(surface: Surface, steps: number, colour: string): void {
  const pitch = (BLOCK_HEIGHT - 3) / STAFF_STEPS
  surface.fillStyle = colour
  for (let step = 0; step < STAFF_STEPS; step++) {
    const lit = step < steps
    surface.globalAlpha = lit ? 1 : 0.22
    surface.fillRect(
      1.4,
      -1.5 - (step + 1) * pitch + 0.4,
      step % 5 === 4 || lit ? STAFF_WIDTH : STAFF_WIDTH * 0.6,
      pitch - 0.8,
    )
  }
  surface.globalAlpha = 1
}

/** How far the whole session is, along the foot of the picture. */
function drawTide(surface: Surface, { passed }: OverlayState, width: number): void {
  if (passed === null) return
  surface.fillStyle = OVERLAY.muted
  surface.fillRect(0, -TIDE_HEIGHT, width, TIDE_HEIGHT)
  surface.fillStyle = OVERLAY.land
  surface.fillRect(0, -TIDE_HEIGHT, (width * passed) / PASSED_STEPS, TIDE_HEIGHT)
}

/** The block of the count, with the corners a gouge leaves. */
function cutBlock(surface: Surface): void {
  const x = 0,
    y = -BLOCK_HEIGHT,
    width = BLOCK_WIDTH,
    height = BLOCK_HEIGHT
  surface.beginPath()
  surface.moveTo(x, y + 0.5)
  surface.lineTo(x + width * 0.4, y)
  surface.lineTo(x + width - 1.6, y + 0.35)
  surface.lineTo(x + width, y + 1.9)
  surface.lineTo(x + width - 0.25, y + height)
  surface.lineTo(x, y + height)
  surface.closePath()
  surface.fill()
}

const PENNANT_WIDTH = 15.5

/** A pennant that flies to the side that works, with the word beside it: never the mark alone. */
function drawPennant(surface: Surface, side: 'left' | 'right', x: number, baseline: number): void {
  surface.save()
  surface.translate(x, baseline - 2.6)
  surface.fillStyle = OVERLAY.land
  surface.font = STRONG.replace('%', '4.4')
  surface.textAlign = 'left'
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
