// A slate at the side of the picture, at its foot in an upright one, with everything large: for a screen across the
// room. The picture keeps the rest for whoever moves.
import { STAFF_STEPS, type OverlayState } from '../overlay'
import { drawTypeset, LEADING, typeset, type Face, type Typeset } from '../typeset'
import {
  countKey,
  countText,
  drawCountText,
  DISPLAY,
  drawMarks,
  drawPennant,
  hasCount,
  nextOf,
  PLAIN,
  plateKey,
  repsBeside,
  STRONG,
  stripsOf,
  tide,
} from './marks'
import type { Box, Look, Pen } from './part'

/** Narrower pictures have the slate at their foot. */
const NARROW = 120
const SIDE_WIDTH = 54
const FOOT_HEIGHT = 58
const COUNT_ROOM = 40
const COUNT_SIZE = 38
const EDGE = 4
const LABEL_SIZE = 10
const LEAST_LABEL = 4.6
const SIDE_SIZE = 7
const LINE_SIZE = 5
const LEAST_SIZE = 4.3
const GAP = 2
const MOST_STRIPS = 2
/** Below the last row. */
const TIDE_ROOM = 1

interface Places {
  slate: Box
  count: Box
  texts: Box
}

function placesOf({ width, height }: Pen, state: OverlayState): Places {
  const room = hasCount(state) ? COUNT_ROOM : 0
  if (width < NARROW) {
    const slate = { x: 0, y: height - FOOT_HEIGHT, width, height: FOOT_HEIGHT }
    const count = { ...slate, width: room }
    const texts = {
      ...{ x: room + EDGE, y: slate.y + EDGE },
      ...{ width: width - room - 2 * EDGE, height: FOOT_HEIGHT - EDGE - TIDE_ROOM },
    }
    return { slate, count, texts }
  }
  const slate = { x: 0, y: 0, width: SIDE_WIDTH, height }
  const count = { ...slate, height: room }
  const texts = { x: EDGE, y: room + EDGE, width: SIDE_WIDTH - 2 * EDGE, height: height - room - EDGE - TIDE_ROOM }
  return { slate, count, texts }
}

/** One below the other; what matters least goes first where there is no room for all. */
interface Row {
  high: number
  /** The lowest is the first to go. */
  worth: number
  draw: (x: number, top: number) => void
}

const textRow = (pen: Pen, text: Typeset, face: Face, look: { colour: string; call?: string; worth: number }): Row => ({
  high: text.height + GAP,
  worth: look.worth,
  draw: (x, top) => {
    const { surface } = pen
    if (look.call) {
      surface.fillStyle = look.call
      surface.fillRect(x - 1.6, top - 0.4, text.width + 3.2, text.height + 0.9)
    }
    surface.fillStyle = look.colour
    drawTypeset(surface, face, text, { x, y: top + text.height - 0.25 * text.size })
  },
})

const MOST_WORTH = 9

function headRows(pen: Pen, state: OverlayState, width: number): Row[] {
  const { surface, tone } = pen
  const reps = repsBeside(state)
  const label = typeset(surface, DISPLAY, [reps + state.label, state.short && reps + state.short], {
    ...{ width, size: LABEL_SIZE, least: LEAST_LABEL, most: 26 },
  })
  const { side } = state
  const pennant: Row[] = side
    ? [
        {
          high: SIDE_SIZE * LEADING + GAP,
          worth: MOST_WORTH,
          draw: (x, top) => drawPennant(pen, side, { x, y: top + SIDE_SIZE * 0.8, size: SIDE_SIZE }),
        },
      ]
    : []
  const strips = stripsOf(pen, state, { width, size: LINE_SIZE, least: LEAST_SIZE, most: MOST_STRIPS })
  return [
    textRow(pen, label, DISPLAY, { colour: tone.text, worth: MOST_WORTH }),
    ...pennant,
    ...strips.map(({ text, isCall }, at) =>
      textRow(pen, text, STRONG, {
        ...(isCall ? { colour: tone.callText, call: tone.call, worth: 7 } : { colour: tone.text, worth: 4.5 - at }),
      }),
    ),
  ]
}

function footRows(pen: Pen, state: OverlayState, width: number): Row[] {
  const { surface, tone } = pen
  const sized = { width, size: LINE_SIZE, least: LEAST_SIZE, most: 18 }
  const { marks } = state
  return [
    ...state.counters.map((counter, at) =>
      textRow(pen, typeset(surface, PLAIN, [counter], sized), PLAIN, { colour: tone.muted, worth: 3 + at }),
    ),
    ...(marks
      ? [{ high: 2.6 + GAP, worth: 5, draw: (x: number, top: number) => drawMarks(pen, marks, x, top + 2.6) }]
      : []),
    ...(state.next
      ? [
          textRow(pen, typeset(surface, STRONG, [nextOf(state)], sized), STRONG, {
            ...{
              colour: state.ground === 'work' ? tone.muted : tone.accent,
              worth: state.ground === 'work' ? 6 : MOST_WORTH,
            },
          }),
        ]
      : []),
  ]
}

const sumOf = (rows: readonly Row[]): number => rows.reduce((sum, { high }) => sum + high, 0)

/** Rows without those that matter least, until they have room; what matters most always stays. */
function fitting(rows: readonly Row[], room: number): Row[] {
  const left = [...rows]
  while (sumOf(left) > room) {
    const least = Math.min(...left.map(({ worth }) => worth))
    if (least >= MOST_WORTH) break
    left.splice(
      left.findIndex(({ worth }) => worth === least),
      1,
    )
  }
  return left
}

function drawSlate(pen: Pen, state: OverlayState): void {
  const { surface, tone } = pen
  const { slate: ground, texts } = placesOf(pen, state)
  surface.fillStyle = tone.plate
  surface.fillRect(ground.x, ground.y, ground.width, ground.height)
  surface.textAlign = 'left'
  surface.textBaseline = 'alphabetic'
  const head = headRows(pen, state, texts.width),
    foot = footRows(pen, state, texts.width)
  const shown = new Set(fitting([...head, ...foot], texts.height))
  const drawFrom = (rows: readonly Row[], from: number): void => {
    let top = from
    for (const row of rows.filter((one) => shown.has(one))) {
      row.draw(texts.x, top)
      top += row.high
    }
  }
  drawFrom(head, texts.y)
  drawFrom(foot, texts.y + texts.height - sumOf(foot.filter((one) => shown.has(one))))
}

function drawCount(pen: Pen, state: OverlayState): void {
  if (!hasCount(state)) return
  const { surface, tone } = pen
  const { count } = placesOf(pen, state)
  const { block, digits } = tone.grounds[state.ground]
  surface.fillStyle = block
  surface.fillRect(count.x, count.y, count.width, count.height)
  const size = Math.min(COUNT_SIZE, (COUNT_SIZE * 2.15) / Math.max(2, countText(state).length))
  drawCountText(pen, state, {
    ...{ x: count.x + count.width / 2, y: count.y + (count.height - CHALK) / 2, size, colour: digits },
    reps: { raised: 2.5, wordSize: 5, wordY: count.y + count.height - CHALK - 2 },
  })
  if (state.staff !== null) drawChalk(pen, state.staff, count, digits)
}

const CHALK = 3.4

/** Ten strokes of chalk under the count; each is wiped off in its turn. */
function drawChalk({ surface }: Pen, steps: number, { x, y, width, height }: Box, colour: string): void {
  const pitch = (width - 4) / STAFF_STEPS
  surface.fillStyle = colour
  for (let step = 0; step < STAFF_STEPS; step++) {
    surface.globalAlpha = step < steps ? 1 : 0.22
    surface.fillRect(x + 2 + step * pitch + 0.3, y + height - CHALK, pitch - 0.6, CHALK - 1)
  }
  surface.globalAlpha = 1
}

export const slate: Look = {
  sizes: { count: COUNT_SIZE, label: LEAST_LABEL, next: LEAST_SIZE, lines: LEAST_SIZE },
  parts: [
    { keyOf: plateKey, boxOf: (pen, state) => placesOf(pen, state).slate, draw: drawSlate },
    { keyOf: countKey, boxOf: (pen, state) => (hasCount(state) ? placesOf(pen, state).count : null), draw: drawCount },
    tide,
  ],
}
