// A printed block with the count and a tide staff at the foot, a plate across the picture with move, side, counters and
// what is next, and strips of paper above it.
import { STAFF_STEPS, type OverlayState } from '../overlay'
import type { Surface } from '../surface'
import { drawTypeset, LEADING, typeset, type Typeset } from '../typeset'
import {
  beyond,
  countKey,
  drawCountText,
  sizeByLetters,
  DISPLAY,
  drawMarks,
  drawPennant,
  hasCount,
  hasCounters,
  marksWide,
  nextOf,
  PENNANT_WIDTH,
  PLAIN,
  plateKey,
  repsBeside,
  STRONG,
  stripsOf,
  tide,
  type Strip,
} from './marks'
import type { Look, Pen } from './part'

const BLOCK_HEIGHT = 22
const BLOCK_WIDTH = 25
const STAFF_WIDTH = 3.2
const PLATE_HEIGHT = 16.6
const LABEL_SIZE = 7.4
const LEAST_LABEL = 4.3
const MARGIN = 2.4
/** Above the foot of the last row. */
const FOOT = 2.6
/** Narrower pictures have what is next in a row of its own. */
const NARROW = 130
const ROW_HEIGHT = 5.6
const STRIP_HEIGHT = 6.4
const STRIP_SIZE = 4.3
const COUNTERS_SIZE = 4.3
const NEXT_SIZE = 4.4
const LEAST_SIZE = 4.3
const MOST_STRIPS = 3
const COUNT_SIZE = 19.8

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

const heightOf = ({ text }: Strip): number => STRIP_HEIGHT - STRIP_SIZE * LEADING + text.height
const topOf = ({ height, strips }: Plate): number => height + strips.reduce((sum, strip) => sum + heightOf(strip), 0)

function plateOf(pen: Pen, state: OverlayState): Plate {
  const { surface, width } = pen
  const isNarrow = width < NARROW
  const left = (hasCount(state) ? BLOCK_WIDTH : 0) + MARGIN
  const room = width - left - MARGIN
  const text = repsBeside(state)
  surface.font = DISPLAY.replace('%', String(LABEL_SIZE))
  const reps = { text, width: text ? surface.measureText(text).width : 0 }
  const label = typeset(surface, DISPLAY, [state.label, state.short], {
    ...{ width: room - reps.width - (state.side ? PENNANT_WIDTH : 0), size: LABEL_SIZE, least: LEAST_LABEL, most: 26 },
  })
  const rows = rowsOf(surface, state, room, isNarrow)
  const strips = { width: width - left - 2 * MARGIN, size: STRIP_SIZE, least: LEAST_SIZE, most: MOST_STRIPS }
  return {
    ...{ left, label, reps, isNarrow, ...rows },
    height: PLATE_HEIGHT + beyond(label, LABEL_SIZE) + rows.more,
    strips: stripsOf(pen, state, strips),
  }
}

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
        ...{ width: room * (beside ? 0.48 : 1) - marksWidth, size: COUNTERS_SIZE, least: LEAST_SIZE, most: 12 },
      })
    : null
  const next = state.next
    ? typeset(ruler, STRONG, [nextOf(state)], {
        ...{ width: room * (beside ? 0.5 : 1), size: NEXT_SIZE, least: LEAST_SIZE, most: 16 },
      })
    : null
  const overCounters = beyond(counters, COUNTERS_SIZE),
    overNext = beyond(next, NEXT_SIZE)
  const below = isNarrow && counted && next
  return { counters, next, more: below ? overCounters + ROW_HEIGHT + overNext : Math.max(overCounters, overNext) }
}

function drawPlate(pen: Pen, state: OverlayState): void {
  const { surface, width, tone } = pen
  const plate = plateOf(pen, state)
  const { left, height, label, reps, counters, next, isNarrow } = plate
  surface.fillStyle = tone.plate
  surface.fillRect(0, -height, width, height)
  surface.textBaseline = 'alphabetic'
  surface.textAlign = 'left'
  const labelFoot = -height + Math.max(LABEL_SIZE * LEADING, label.height) - 0.5
  surface.fillStyle = tone.accent
  surface.font = DISPLAY.replace('%', String(LABEL_SIZE))
  if (reps.text) surface.fillText(reps.text, left, labelFoot)
  surface.fillStyle = tone.text
  drawTypeset(surface, DISPLAY, label, { x: left + reps.width, y: labelFoot })
  if (state.side) drawPennant(pen, state.side, { x: left + reps.width + label.width + 2.2, y: labelFoot })
  const ownRow = isNarrow && next !== null && hasCounters(state)
  const countersFoot = -FOOT - (ownRow ? ROW_HEIGHT + beyond(next, NEXT_SIZE) : 0)
  surface.fillStyle = tone.muted
  if (counters) drawTypeset(surface, PLAIN, counters, { x: left, y: countersFoot })
  if (state.marks) drawMarks(pen, state.marks, left + (counters ? counters.width + 2 : 0), countersFoot)
  if (next) {
    surface.fillStyle = state.ground === 'work' ? tone.muted : tone.accent
    surface.textAlign = isNarrow ? 'left' : 'right'
    drawTypeset(surface, STRONG, next, { x: isNarrow ? left : width - MARGIN, y: -FOOT })
  }
  drawStrips(pen, plate)
}

const UNDER_BLOCK = 1

function drawStrips({ surface, tone }: Pen, { left, height, strips }: Plate): void {
  let foot = -height
  surface.textAlign = 'left'
  for (const strip of strips) {
    const high = heightOf(strip)
    surface.fillStyle = strip.isCall ? tone.call : tone.strip
    // It begins below the block, so that nothing is seen between them.
    const from = Math.max(0, left - MARGIN - UNDER_BLOCK)
    surface.fillRect(from, foot - high, left + strip.text.width + MARGIN - from, high - 0.5)
    surface.fillStyle = strip.isCall ? tone.callText : tone.stripText
    drawTypeset(surface, STRONG, strip.text, { x: left, y: foot - 2.1 })
    foot -= high
  }
}

function drawBlock(pen: Pen, state: OverlayState): void {
  if (!hasCount(state)) return
  const { surface, tone } = pen
  const { block, digits } = tone.grounds[state.ground]
  surface.fillStyle = block
  cutBlock(surface)
  drawCountText(pen, state, {
    ...{ x: STAFF_WIDTH + 0.7 + (BLOCK_WIDTH - STAFF_WIDTH) / 2, y: -BLOCK_HEIGHT / 2, colour: digits },
    ...{ size: sizeByLetters(state, COUNT_SIZE), reps: { raised: 2, wordSize: 3.9, wordY: -FOOT } },
  })
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

/** The block of the count, with the corners a gouge leaves. */
function cutBlock(surface: Surface): void {
  surface.beginPath()
  surface.moveTo(0, -BLOCK_HEIGHT + 0.5)
  surface.lineTo(BLOCK_WIDTH * 0.4, -BLOCK_HEIGHT)
  surface.lineTo(BLOCK_WIDTH - 1.6, -BLOCK_HEIGHT + 0.35)
  surface.lineTo(BLOCK_WIDTH, -BLOCK_HEIGHT + 1.9)
  surface.lineTo(BLOCK_WIDTH - 0.25, 0)
  surface.lineTo(0, 0)
  surface.closePath()
  surface.fill()
}

/** Draws with its origin at the foot of the picture. */
const fromFoot =
  (draw: (pen: Pen, state: OverlayState) => void) =>
  (pen: Pen, state: OverlayState): void => {
    pen.surface.save()
    pen.surface.translate(0, pen.height)
    draw(pen, state)
    pen.surface.restore()
  }

export const linocut: Look = {
  sizes: { count: COUNT_SIZE, label: LEAST_LABEL, next: LEAST_SIZE, lines: LEAST_SIZE },
  parts: [
    {
      keyOf: plateKey,
      boxOf: (pen, state) => {
        const high = topOf(plateOf(pen, state))
        return { x: 0, y: pen.height - high, width: pen.width, height: high }
      },
      draw: fromFoot(drawPlate),
    },
    {
      keyOf: countKey,
      boxOf: ({ height }, state) =>
        hasCount(state) ? { x: 0, y: height - BLOCK_HEIGHT, width: BLOCK_WIDTH, height: BLOCK_HEIGHT } : null,
      draw: fromFoot(drawBlock),
    },
    tide,
  ],
}
