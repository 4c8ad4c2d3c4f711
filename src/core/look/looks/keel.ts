// A keel in the middle of the foot that bears the count, what is done on its left and what comes on its right: for a
// coach who stands in the middle.
import { STAFF_STEPS, type OverlayState } from '../overlay'
import { drawTypeset, LEADING, typeset, type Face, type Typeset } from '../typeset'
import {
  countKey,
  countText,
  drawCountText,
  DISPLAY,
  drawMarks,
  drawPennant,
  drawStrip,
  hasCount,
  nextOf,
  PLAIN,
  plateKey,
  repsBeside,
  stripHigh,
  STRONG,
  stripsOf,
  tide,
  type Strip,
} from './marks'
import type { Box, Look, Pen } from './part'

const EDGE = 3
const PADDING = 2
/** Below the last row, over the line of the whole. */
const FOOT = 2.2
const KEEL_WIDTH = 36
const KEEL_HEIGHT = 28
const SLANT = 5
const COUNT_SIZE = 21
const LABEL_SIZE = 7.4
const LEAST_LABEL = 4.4
const SIDE_SIZE = 4.8
/** Letters of the move reach below their line. */
const SIDE_GAP = 1.1
const ROW_SIZE = 4.5
const LEAST_SIZE = 4.3
const STRIP_SIZE = 4.4
const MOST_STRIPS = 2
const LEAST_HEIGHT = 15
/** Narrower pictures have the keel above the plate, and all texts below one another. */
const NARROW = 130

interface Row {
  high: number
  draw: (x: number, foot: number) => void
}

interface Plate {
  /** Columns of rows: what is done, and what comes; one in a narrow picture. */
  columns: { x: number; rows: Row[] }[]
  height: number
  keel: Box | null
  strips: Strip[]
  stripsFoot: number
}

const textRow = ({ surface }: Pen, face: Face, text: Typeset, colour: string): Row => ({
  high: text.height,
  draw: (x, foot) => {
    surface.fillStyle = colour
    drawTypeset(surface, face, text, { x, y: foot - 0.24 * text.size })
  },
})

function doneRows(pen: Pen, state: OverlayState, width: number): Row[] {
  const { surface, tone } = pen
  const reps = repsBeside(state)
  const label = typeset(surface, DISPLAY, [reps + state.label, state.short && reps + state.short], {
    ...{ width, size: LABEL_SIZE, least: LEAST_LABEL, most: 17 },
  })
  const { side } = state
  return [
    textRow(pen, DISPLAY, label, tone.text),
    ...(side
      ? [
          {
            high: SIDE_SIZE * LEADING + SIDE_GAP,
            draw: (x: number, foot: number) =>
              drawPennant(pen, side, { x, y: foot - 0.2 * SIDE_SIZE, size: SIDE_SIZE }),
          },
        ]
      : []),
  ]
}

function comingRows(pen: Pen, state: OverlayState, width: number): Row[] {
  const { surface, tone } = pen
  const sized = { width, size: ROW_SIZE, least: LEAST_SIZE, most: 11 }
  const { marks, counters } = state
  const next = state.next ? typeset(surface, STRONG, [nextOf(state)], sized) : null
  const counted = counters.length ? typeset(surface, PLAIN, [counters.join(' / '), counters.at(-1) ?? ''], sized) : null
  return [
    ...(next ? [textRow(pen, STRONG, next, state.ground === 'work' ? tone.muted : tone.accent)] : []),
    ...(counted ? [textRow(pen, PLAIN, counted, tone.muted)] : []),
    ...(marks ? [{ high: 4, draw: (x: number, foot: number) => drawMarks(pen, marks, x, foot - 0.6) }] : []),
  ]
}

const sumOf = (rows: readonly Row[]): number => rows.reduce((sum, { high }) => sum + high, 0)

function plateOf(pen: Pen, state: OverlayState): Plate {
  const { width, height } = pen
  const counts = hasCount(state)
  const isNarrow = width < NARROW
  const room = isNarrow ? width - 2 * EDGE : (width - (counts ? KEEL_WIDTH : 0)) / 2 - 2 * EDGE
  const done = doneRows(pen, state, room),
    coming = comingRows(pen, state, room)
  const columns = isNarrow
    ? [{ x: EDGE, rows: [...done, ...coming] }]
    : [
        { x: EDGE, rows: done },
        { x: width - EDGE - room, rows: coming },
      ]
  const high = Math.max(LEAST_HEIGHT, ...columns.map(({ rows }) => PADDING + sumOf(rows) + FOOT))
  const top = height - high
  const keelTop = isNarrow ? top - KEEL_HEIGHT : height - Math.max(KEEL_HEIGHT, high)
  const keel = counts
    ? { ...{ x: (width - KEEL_WIDTH) / 2, y: keelTop }, width: KEEL_WIDTH, height: KEEL_HEIGHT }
    : null
  const stripRoom = isNarrow ? width - 2 * EDGE : room
  const strips = stripsOf(pen, state, { width: stripRoom, size: STRIP_SIZE, least: LEAST_SIZE, most: MOST_STRIPS })
  return { columns, height: high, keel, strips, stripsFoot: isNarrow && keel ? keel.y : top }
}

const stripsHigh = ({ strips }: Plate): number => strips.reduce((sum, strip) => sum + stripHigh(strip), 0)

function drawPlate(pen: Pen, state: OverlayState): void {
  const { surface, width, height, tone, snap } = pen
  const plate = plateOf(pen, state)
  const top = snap(height - plate.height)
  surface.fillStyle = tone.plate
  surface.fillRect(0, top, width, height - top)
  surface.textAlign = 'left'
  surface.textBaseline = 'alphabetic'
  for (const { x, rows } of plate.columns) {
    let foot = height - plate.height + PADDING
    for (const { high, draw } of rows) {
      foot += high
      draw(x, foot)
    }
  }
  let stripTop = plate.stripsFoot
  for (const strip of [...plate.strips].reverse()) {
    stripTop -= stripHigh(strip)
    drawStrip(pen, strip, { top: stripTop, edge: EDGE })
  }
}

function drawKeel(pen: Pen, state: OverlayState, box: Box): void {
  const { surface, tone, snap } = pen
  const { x, width } = box
  const y = snap(box.y),
    height = snap(box.y + box.height) - y
  const { block, digits } = tone.grounds[state.ground]
  surface.fillStyle = block
  surface.beginPath()
  surface.moveTo(x, y)
  surface.lineTo(x + width, y)
  surface.lineTo(x + width - SLANT, y + height)
  surface.lineTo(x + SLANT, y + height)
  surface.closePath()
  surface.fill()
  const size = Math.min(COUNT_SIZE, (COUNT_SIZE * 2.1) / Math.max(2, countText(state).length))
  drawCountText(pen, state, {
    ...{ x: x + width / 2, y: y + height / 2 + 1, size, colour: digits },
    reps: { raised: 2.2, wordSize: 4.6, wordY: y + height - 2 },
  })
  if (state.staff === null) return
  // The water along the top of the keel falls from both ends to its middle.
  const wide = width - 4
  surface.fillStyle = digits
  surface.globalAlpha = 0.22
  surface.fillRect(x + 2, y + 1.6, wide, 1.8)
  surface.globalAlpha = 1
  const left = (wide * state.staff) / STAFF_STEPS
  surface.fillRect(x + width / 2 - left / 2, y + 1.6, left, 1.8)
}

/** Where the keel stands depends on how much is written beside it. */
const keelKey = (state: OverlayState): string => `${countKey(state)} ${plateKey(state)}`

export const keel: Look = {
  sizes: { count: COUNT_SIZE, label: LEAST_LABEL, next: LEAST_SIZE, lines: LEAST_SIZE },
  parts: [
    {
      keyOf: plateKey,
      boxOf: (pen, state) => {
        const plate = plateOf(pen, state)
        const top = Math.min(pen.height - plate.height, plate.stripsFoot) - stripsHigh(plate)
        return { x: 0, y: top, width: pen.width, height: pen.height - top }
      },
      draw: drawPlate,
    },
    {
      keyOf: keelKey,
      boxOf: (pen, state) => plateOf(pen, state).keel,
      draw: (pen, state) => {
        const { keel: box } = plateOf(pen, state)
        if (box) drawKeel(pen, state, box)
      },
    },
    tide,
  ],
}
