// As little as can be, as large as can be, for a phone on the floor: the count across the top, one line below it, and a
// band at the foot with what calls.
import { STAFF_STEPS, type OverlayState } from '../overlay'
import { drawTypeset, typeset, type Typeset } from '../typeset'
import {
  countKey,
  countText,
  drawCountText,
  DISPLAY,
  drawPennant,
  hasCount,
  nextOf,
  plateKey,
  repsBeside,
  STRONG,
  stripsOf,
  tide,
} from './marks'
import type { Look, Pen } from './part'

const COUNT_SIZE = 52
const COUNT_HEIGHT = 47
const LABEL_SIZE = 15
const LEAST_LABEL = 8
const LINE_SIZE = 10
const LEAST_SIZE = 7
const EDGE = 4
const PADDING = 2.4
const FOOT = 2

/** What stands at the foot, what matters most last: it is nearest to whoever lies beside the phone. */
interface Band {
  label: Typeset
  side: OverlayState['side']
  line: { text: Typeset; isCall: boolean } | null
}

const SIDE_SIZE = 9
const SIDE_WIDTH = 32

function bandOf(pen: Pen, state: OverlayState): Band {
  const { surface, width } = pen
  const room = width - 2 * EDGE
  const reps = repsBeside(state)
  const label = typeset(surface, DISPLAY, [reps + state.label, reps + (state.short || state.label)], {
    ...{ width: room - (state.side ? SIDE_WIDTH : 0), size: LABEL_SIZE, least: LEAST_LABEL, most: 32 },
  })
  const [strip] = stripsOf(pen, state, { width: room, size: LINE_SIZE, least: LEAST_SIZE, most: 1 })
  const next =
    state.ground !== 'work' && state.next
      ? typeset(surface, STRONG, [nextOf(state)], { width: room, size: LINE_SIZE, least: LEAST_SIZE, most: 18 })
      : null
  // In a pause what comes next matters more than what has just been said.
  return { label, side: state.side, line: next ? { text: next, isCall: false } : (strip ?? null) }
}

const bandHeight = ({ label, line }: Band): number =>
  FOOT + label.height + PADDING + (line ? line.text.height + PADDING : 0)

function drawBand(pen: Pen, state: OverlayState): void {
  const { surface, width, height, tone } = pen
  const band = bandOf(pen, state)
  const high = bandHeight(band)
  surface.fillStyle = tone.plate
  surface.fillRect(0, height - high, width, high)
  surface.textAlign = 'left'
  surface.textBaseline = 'alphabetic'
  const top = height - high + PADDING / 2
  surface.fillStyle = tone.text
  const labelFoot = top + band.label.height - 0.22 * band.label.size
  drawTypeset(surface, DISPLAY, band.label, { x: EDGE, y: labelFoot })
  if (band.side) drawPennant(pen, band.side, { x: EDGE + band.label.width + 3, y: labelFoot, size: SIDE_SIZE })
  if (!band.line) return
  const { text, isCall } = band.line
  const y = height - FOOT - text.height - PADDING / 2
  if (isCall) {
    surface.fillStyle = tone.call
    surface.fillRect(0, y - PADDING / 2, width, text.height + PADDING)
  }
  surface.fillStyle = isCall ? tone.callText : state.ground === 'work' ? tone.muted : tone.accent
  drawTypeset(surface, STRONG, text, { x: EDGE, y: y + text.height - 0.2 * text.size })
}

const BOX_WIDTH = 68

function drawCount(pen: Pen, state: OverlayState): void {
  if (!hasCount(state)) return
  const { surface, width, tone } = pen
  const { block, digits } = tone.grounds[state.ground]
  const left = (width - BOX_WIDTH) / 2
  surface.fillStyle = block
  // A lantern hangs: narrower at its top.
  surface.beginPath()
  surface.moveTo(left + 6, 0)
  surface.lineTo(left + BOX_WIDTH - 6, 0)
  surface.lineTo(left + BOX_WIDTH, COUNT_HEIGHT - 3)
  surface.lineTo(left + BOX_WIDTH - 3, COUNT_HEIGHT)
  surface.lineTo(left + 3, COUNT_HEIGHT)
  surface.lineTo(left, COUNT_HEIGHT - 3)
  surface.closePath()
  surface.fill()
  const size = Math.min(COUNT_SIZE, (COUNT_SIZE * 2.3) / Math.max(2, countText(state).length))
  drawCountText(pen, state, {
    ...{ x: width / 2, y: COUNT_HEIGHT / 2 - 1.5, size, colour: digits },
    reps: { raised: 1.5, wordSize: 7, wordY: COUNT_HEIGHT - 2 },
  })
  if (state.staff === null) return
  const wide = BOX_WIDTH - 10
  surface.globalAlpha = 0.25
  surface.fillRect(left + 5, COUNT_HEIGHT - 3, wide, 1.8)
  surface.globalAlpha = 1
  surface.fillRect(left + 5, COUNT_HEIGHT - 3, (wide * state.staff) / STAFF_STEPS, 1.8)
}

export const lantern: Look = {
  sizes: { count: COUNT_SIZE, label: LEAST_LABEL, next: LEAST_SIZE, lines: LEAST_SIZE },
  parts: [
    {
      keyOf: plateKey,
      boxOf: (pen, state) => {
        const high = bandHeight(bandOf(pen, state))
        return { x: 0, y: pen.height - high, width: pen.width, height: high }
      },
      draw: drawBand,
    },
    {
      keyOf: countKey,
      boxOf: ({ width }, state) =>
        hasCount(state) ? { x: (width - BOX_WIDTH) / 2, y: 0, width: BOX_WIDTH, height: COUNT_HEIGHT } : null,
      draw: drawCount,
    },
    tide,
  ],
}
