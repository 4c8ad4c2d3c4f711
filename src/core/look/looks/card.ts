// A card in the middle of the picture, in every look alike: while it stands, nothing else does.
import { DISPLAY, STRONG } from './marks'
import type { Box, Part, Pen } from './part'
import { drawTypeset, typeset, type Typeset } from '../typeset'

const MOST_WIDTH = 128
const EDGE = 6
const PADDING = 5
const BAR = 1.6
const TITLE_SIZE = 9
const LINE_SIZE = 5.2
const GAP = 1.6
/** Smaller steps until it fits. */
const STEP = 0.94

interface Card {
  title: Typeset
  lines: Typeset[]
  box: Box
}

function cardOf({ surface, width, height }: Pen, [heading = '', ...texts]: readonly string[]): Card {
  const wide = Math.min(MOST_WIDTH, width - 2 * EDGE)
  const room = wide - 2 * PADDING - BAR
  for (let share = 1; ; share *= STEP) {
    const set = (face: string, text: string, size: number): Typeset =>
      typeset(surface, face, [text], { width: room, size: size * share, least: size * share })
    const title = set(DISPLAY, heading, TITLE_SIZE)
    const lines = texts.map((text) => set(STRONG, text, LINE_SIZE))
    const high = lines.reduce((sum, line) => sum + line.height + GAP * share, 2 * PADDING + title.height)
    if (high > height - 2 * EDGE && share > 0.2) continue
    return { title, lines, box: { x: (width - wide) / 2, y: (height - high) / 2, width: wide, height: high } }
  }
}

export const card: Part = {
  keyOf: ({ card: texts }) => JSON.stringify(texts ?? null),
  boxOf: (pen, { card: texts }) => (texts ? cardOf(pen, texts).box : null),
  draw(pen, { card: texts }) {
    if (!texts) return
    const { surface, tone } = pen
    const { title, lines, box } = cardOf(pen, texts)
    surface.fillStyle = tone.plate
    surface.fillRect(box.x, box.y, box.width, box.height)
    surface.fillStyle = tone.grounds.work.block
    surface.fillRect(box.x, box.y, BAR, box.height)
    surface.textAlign = 'left'
    surface.textBaseline = 'alphabetic'
    const x = box.x + BAR + PADDING
    let foot = box.y + PADDING + title.height
    surface.fillStyle = tone.text
    drawTypeset(surface, DISPLAY, title, { x, y: foot - 0.24 * title.size })
    const gap =
      (box.height - 2 * PADDING - title.height - lines.reduce((sum, line) => sum + line.height, 0)) / lines.length
    for (const line of lines) {
      foot += line.height + gap
      drawTypeset(surface, STRONG, line, { x, y: foot - 0.24 * line.size })
    }
  },
}
