// A round window with the count high at the right, whose brass rim goes dark as time runs out; move, side and what is
// next on tags with round ends that stack up from the foot.
import { STAFF_STEPS, type OverlayState } from '../overlay'
import { drawTypeset, LEADING, typeset, type Face, type Typeset } from '../typeset'
import {
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
} from './marks'
import type { Look, Pen } from './part'

const RADIUS = 16
const RIM = 2.6
const EDGE = 4
const RIVETS = 8
const COUNT_SIZE = 18
const LABEL_SIZE = 8
const LEAST_LABEL = 4.4
const LINE_SIZE = 4.4
const LEAST_SIZE = 4.3
const GAP = 0.9
const MOST_STRIPS = 3

interface Tag {
  text: Typeset
  face: Face
  colours: { ground: string; text: string }
  /** Room for what stands after its text. */
  more: number
  /** Reps before its text. */
  reps?: string
}

/** Of its text's own height. */
const PADDING = 0.42
const tagHeight = ({ text }: Tag): number => text.height + text.size * PADDING
const tagWidth = (tag: Tag): number => tag.text.width + tag.more + tagHeight({ ...tag, text: oneLine(tag.text) })
const oneLine = (text: Typeset): Typeset => ({ ...text, height: text.size * LEADING })

/** From the foot up. */
function tagsOf(pen: Pen, state: OverlayState): Tag[] {
  const { surface, tone } = pen
  const width = pen.width - 2 * EDGE
  const tags: Tag[] = []
  if (state.next) {
    const colours =
      state.ground === 'work' ? { ground: tone.plate, text: tone.muted } : { ground: tone.call, text: tone.callText }
    const text = typeset(surface, STRONG, [nextOf(state)], {
      ...{ width: width - 8, size: LINE_SIZE, least: LEAST_SIZE, most: 14 },
    })
    tags.push({ text, face: STRONG, more: 0, colours })
  }
  if (hasCounters(state)) {
    const more = state.marks ? marksWide(state.marks) + 2 : 0
    const texts = [state.counters.join('  /  '), state.counters.at(-1) ?? '']
    const text = typeset(surface, PLAIN, texts, {
      ...{ width: width - more - 8, size: LINE_SIZE, least: LEAST_SIZE, most: 10 },
    })
    tags.push({ text, face: PLAIN, more, colours: { ground: tone.plate, text: tone.muted } })
  }
  const reps = repsBeside(state)
  surface.font = DISPLAY.replace('%', String(LABEL_SIZE))
  const repsWidth = reps ? surface.measureText(reps).width : 0
  const more = repsWidth + (state.side ? PENNANT_WIDTH : 0)
  const text = typeset(surface, DISPLAY, [state.label, state.short], {
    ...{ width: width - more - 12, size: LABEL_SIZE, least: LEAST_LABEL, most: 24 },
  })
  tags.push({ text, face: DISPLAY, more, reps, colours: { ground: tone.plate, text: tone.text } })
  for (const strip of stripsOf(pen, state, { width: width - 8, size: LINE_SIZE, least: LEAST_SIZE, most: MOST_STRIPS }))
    tags.push({
      ...{ text: strip.text, face: STRONG, more: 0 },
      colours: strip.isCall ? { ground: tone.call, text: tone.callText } : { ground: tone.strip, text: tone.stripText },
    })
  return tags
}

/** Above what shows how far the session is. */
const FOOT = 2.4

const stackHeight = (tags: readonly Tag[]): number => tags.reduce((sum, tag) => sum + tagHeight(tag) + GAP, FOOT)

function drawTags(pen: Pen, state: OverlayState): void {
  const { surface, height } = pen
  let foot = height - FOOT
  for (const tag of tagsOf(pen, state)) {
    const high = tagHeight(tag)
    const round = tagHeight({ ...tag, text: oneLine(tag.text) }) / 2
    surface.fillStyle = tag.colours.ground
    roundRect(pen, { x: EDGE, y: foot - high, width: tagWidth(tag), height: high }, round)
    surface.textAlign = 'left'
    surface.textBaseline = 'alphabetic'
    const baseline = foot - tag.text.size * (PADDING / 2 + 0.22)
    let x = EDGE + round
    if (tag.reps) {
      surface.fillStyle = pen.tone.accent
      surface.font = DISPLAY.replace('%', String(LABEL_SIZE))
      surface.fillText(tag.reps, x, baseline)
      x += surface.measureText(tag.reps).width
    }
    surface.fillStyle = tag.colours.text
    drawTypeset(surface, tag.face, tag.text, { x, y: baseline })
    const after = x + tag.text.width + 2
    if (tag.face === DISPLAY && state.side) drawPennant(pen, state.side, { x: after, y: baseline })
    if (tag.face === PLAIN && state.marks) drawMarks(pen, state.marks, after, baseline)
    foot -= high + GAP
  }
}

function roundRect(
  { surface }: Pen,
  box: { x: number; y: number; width: number; height: number },
  round: number,
): void {
  const { x, y, width, height } = box
  surface.beginPath()
  surface.moveTo(x + round, y)
  surface.arc(x + width - round, y + round, round, -Math.PI / 2, 0)
  surface.arc(x + width - round, y + height - round, round, 0, Math.PI / 2)
  surface.arc(x + round, y + height - round, round, Math.PI / 2, Math.PI)
  surface.arc(x + round, y + round, round, Math.PI, Math.PI * 1.5)
  surface.closePath()
  surface.fill()
}

const centreOf = ({ width }: Pen): { x: number; y: number } => ({ x: width - EDGE - RADIUS, y: EDGE + RADIUS })

function drawWindow(pen: Pen, state: OverlayState): void {
  if (!hasCount(state)) return
  const { surface, tone } = pen
  const { x, y } = centreOf(pen)
  const { block, digits } = tone.grounds[state.ground]
  surface.fillStyle = block
  disc(pen, RADIUS)
  surface.lineWidth = RIM
  surface.lineCap = 'butt'
  surface.strokeStyle = digits
  const top = -Math.PI / 2
  for (const { share, light } of [
    { share: 1, light: 0.25 },
    { share: (state.staff ?? STAFF_STEPS) / STAFF_STEPS, light: 1 },
  ]) {
    surface.globalAlpha = light
    surface.beginPath()
    surface.arc(x, y, RADIUS - RIM / 2 - 0.6, top, top + 2 * Math.PI * share)
    surface.stroke()
  }
  surface.globalAlpha = 1
  surface.fillStyle = block
  for (let at = 0; at < RIVETS; at++) {
    const turn = ((at + 0.5) / RIVETS) * 2 * Math.PI
    const [away, size] = [RADIUS - RIM / 2 - 0.6, 0.55]
    surface.beginPath()
    surface.arc(x + away * Math.cos(turn), y + away * Math.sin(turn), size, 0, 2 * Math.PI)
    surface.fill()
  }
  drawCountText(pen, state, {
    ...{ x, y, colour: digits, size: sizeByLetters(state, COUNT_SIZE) },
    reps: { raised: 1.6, wordSize: 3.6, wordY: y + 9 },
  })
}

function disc(pen: Pen, radius: number): void {
  const { x, y } = centreOf(pen)
  pen.surface.beginPath()
  pen.surface.arc(x, y, radius, 0, 2 * Math.PI)
  pen.surface.fill()
}

export const porthole: Look = {
  sizes: { count: COUNT_SIZE, label: LEAST_LABEL, next: LEAST_SIZE, lines: LEAST_SIZE },
  parts: [
    {
      keyOf: plateKey,
      boxOf: (pen, state) => {
        const tags = tagsOf(pen, state)
        const high = stackHeight(tags)
        return { x: EDGE, y: pen.height - high, width: Math.max(...tags.map(tagWidth)) + 1, height: high }
      },
      draw: drawTags,
    },
    {
      keyOf: countKey,
      boxOf: (pen, state) =>
        hasCount(state) ? { x: pen.width - EDGE - 2 * RADIUS, y: EDGE, width: 2 * RADIUS, height: 2 * RADIUS } : null,
      draw: drawWindow,
    },
    tide,
  ],
}
