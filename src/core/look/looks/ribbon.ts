// A ribbon across the top with the count on a flag that hangs from it: for hosts whose own controls lie at the foot,
// and for floors that have to be seen.
import { STAFF_STEPS, type OverlayState } from '../overlay'
import { drawTypeset, typeset, type Typeset } from '../typeset'
import {
  countKey,
  countText,
  drawCountText,
  DISPLAY,
  drawMarks,
  drawPennant,
  drawStrip,
  hasCount,
  hasCounters,
  marksWide,
  nextOf,
  PENNANT_WIDTH,
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
const PADDING = 1.8
const FLAG_WIDTH = 28
const FLAG_HEIGHT = 33
const NOTCH = 4
const COUNT_SIZE = 21
const LABEL_SIZE = 7.6
const LEAST_LABEL = 4.4
const ROW_SIZE = 4.4
const LEAST_SIZE = 4.3
const STRIP_SIZE = 4.4
const MOST_STRIPS = 2
/** Narrower pictures have what is next in a row of its own. */
const NARROW = 130

interface Ribbon {
  label: Typeset
  counters: Typeset | null
  next: Typeset | null
  /** Height of the row of counters, and of what is next where that has its own. */
  rows: { counters: number; next: number }
  height: number
  strips: Strip[]
}

function ribbonOf(pen: Pen, state: OverlayState): Ribbon {
  const { surface, width } = pen
  const room = width - 2 * EDGE - (hasCount(state) ? FLAG_WIDTH + EDGE : 0)
  const reps = repsBeside(state)
  const label = typeset(surface, DISPLAY, [reps + state.label, state.short && reps + state.short], {
    ...{ width: room - (state.side ? PENNANT_WIDTH : 0), size: LABEL_SIZE, least: LEAST_LABEL, most: 17 },
  })
  const isNarrow = width < NARROW
  const half = isNarrow ? room : room / 2 - EDGE
  const sized = { size: ROW_SIZE, least: LEAST_SIZE, most: 11 }
  const marks = state.marks ? marksWide(state.marks) + 2 : 0
  const counters = state.counters.length
    ? typeset(surface, PLAIN, [state.counters.join(' / '), state.counters.at(-1) ?? ''], {
        ...sized,
        width: half - marks,
      })
    : null
  const next = state.next ? typeset(surface, STRONG, [nextOf(state)], { ...sized, width: half }) : null
  const countersHigh = hasCounters(state) ? (counters?.height ?? ROW_SIZE) : 0
  const nextHigh = next?.height ?? 0
  const rows = isNarrow
    ? { counters: countersHigh, next: nextHigh }
    : { counters: Math.max(countersHigh, nextHigh), next: 0 }
  const height = PADDING + label.height + rows.counters + rows.next + PADDING
  const strips = stripsOf(pen, state, { width: room, size: STRIP_SIZE, least: LEAST_SIZE, most: MOST_STRIPS })
  return { label, counters, next, rows, height, strips }
}

const allHigh = ({ height, strips }: Ribbon): number => strips.reduce((sum, strip) => sum + stripHigh(strip), height)

function drawRibbon(pen: Pen, state: OverlayState): void {
  const { surface, width, tone } = pen
  const ribbon = ribbonOf(pen, state)
  const { label, counters, next, rows, height } = ribbon
  surface.fillStyle = tone.plate
  surface.fillRect(0, 0, width, pen.snap(height))
  surface.textAlign = 'left'
  surface.textBaseline = 'alphabetic'
  surface.fillStyle = tone.text
  const labelFoot = PADDING + label.height - 0.24 * label.size
  drawTypeset(surface, DISPLAY, label, { x: EDGE, y: labelFoot })
  if (state.side) drawPennant(pen, state.side, { x: EDGE + label.width + 2, y: labelFoot })
  const rowFoot = PADDING + label.height + rows.counters - 0.24 * ROW_SIZE
  surface.fillStyle = tone.muted
  if (counters) drawTypeset(surface, PLAIN, counters, { x: EDGE, y: rowFoot })
  if (state.marks) drawMarks(pen, state.marks, EDGE + (counters ? counters.width + 2 : 0), rowFoot)
  if (next) {
    surface.fillStyle = state.ground === 'work' ? tone.muted : tone.accent
    const right = width - EDGE - (hasCount(state) ? FLAG_WIDTH + EDGE : 0)
    const x = rows.next ? EDGE : right - next.width
    drawTypeset(surface, STRONG, next, { x, y: rows.next ? rowFoot + rows.next : rowFoot })
  }
  let top = height
  for (const strip of ribbon.strips) {
    drawStrip(pen, strip, { top, edge: EDGE })
    top += stripHigh(strip)
  }
}

const flagOf = ({ width }: Pen): Box => ({ x: width - EDGE - FLAG_WIDTH, y: 0, width: FLAG_WIDTH, height: FLAG_HEIGHT })

function drawFlag(pen: Pen, state: OverlayState): void {
  if (!hasCount(state)) return
  const { surface, tone } = pen
  const { x, y, width, height } = flagOf(pen)
  const { block, digits } = tone.grounds[state.ground]
  surface.fillStyle = block
  surface.beginPath()
  surface.moveTo(x, y)
  surface.lineTo(x + width, y)
  surface.lineTo(x + width, y + height)
  surface.lineTo(x + width / 2, y + height - NOTCH)
  surface.lineTo(x, y + height)
  surface.closePath()
  surface.fill()
  const size = Math.min(COUNT_SIZE, (COUNT_SIZE * 2.1) / Math.max(2, countText(state).length))
  drawCountText(pen, state, {
    ...{ x: x + width / 2, y: y + height / 2 - 1.5, size, colour: digits },
    reps: { raised: 2, wordSize: 4.6, wordY: y + height - NOTCH - 2.4 },
  })
  if (state.staff !== null) drawHem(pen, state.staff, { x, y, width, height }, digits)
}

/** Stitches along the top of the flag; each comes undone in its turn. */
function drawHem({ surface }: Pen, steps: number, { x, y, width }: Box, colour: string): void {
  const pitch = (width - 3) / STAFF_STEPS
  surface.fillStyle = colour
  for (let step = 0; step < STAFF_STEPS; step++) {
    surface.globalAlpha = step < steps ? 1 : 0.22
    surface.fillRect(x + 1.5 + step * pitch + 0.35, y + 1.6, pitch - 0.7, 1.5)
  }
  surface.globalAlpha = 1
}

export const ribbon: Look = {
  sizes: { count: COUNT_SIZE, label: LEAST_LABEL, next: LEAST_SIZE, lines: LEAST_SIZE },
  parts: [
    {
      keyOf: plateKey,
      boxOf: (pen, state) => ({ x: 0, y: 0, width: pen.width, height: allHigh(ribbonOf(pen, state)) }),
      draw: drawRibbon,
    },
    { keyOf: countKey, boxOf: (pen, state) => (hasCount(state) ? flagOf(pen) : null), draw: drawFlag },
    tide,
  ],
}
