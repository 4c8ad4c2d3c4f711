// Sets a text into its room: smaller first, then by a shorter name, then on more lines; never cut, and smaller than can
// be read only where it would leave the picture.
import type { Surface } from './surface'

/** A font with `%` in the place of its size. */
export type Face = string

export interface Room {
  width: number
  /** The size that is wished, and the height that a text takes without making more room. */
  size: number
  /** Smaller than this it cannot be read. */
  least: number
  /** Higher than this it would leave the picture: then it is smaller than can be read, but whole. Default: any. */
  most?: number
}

export interface Typeset {
  lines: readonly string[]
  size: number
  /** Of its widest line. */
  width: number
  /** From the top of its first line to the foot of its last. */
  height: number
}

/** Of a line, in shares of its size. */
export const LEADING = 1.06
/** A text that has to be so much smaller is set by its shorter name, if there is one. */
const STILL_WELL = 0.7

/** Nothing is smaller. */
const TINY = 0.5

export const faceAt = (face: Face, size: number): string => face.replace('%', size.toFixed(2))

/** @param texts the whole text first, then shorter ones that may stand for it. */
export function typeset(surface: Surface, face: Face, texts: readonly string[], room: Room): Typeset {
  const known = texts.filter(Boolean)
  const widthOf = (text: string, size: number): number => {
    surface.font = faceAt(face, size)
    return surface.measureText(text).width
  }
  const oneLine = (text: string, least: number): Typeset | null => {
    const size = Math.min(room.size, (room.size * room.width) / Math.max(1e-6, widthOf(text, room.size)))
    return size >= least ? setAs([text], size, widthOf) : null
  }
  for (const share of [STILL_WELL, 0])
    for (const text of known) {
      const set = oneLine(text, Math.max(room.least, share * room.size))
      if (set) return set
    }
  const [text = ''] = known
  const noHigher = (set: Typeset): Typeset => {
    let { size } = set,
      fitted = set
    while (fitted.height > (room.most ?? Infinity) && size > TINY) {
      size *= 0.95
      const now = size
      fitted = setAs(
        wrapped(text, room.width, (part) => widthOf(part, now)),
        now,
        widthOf,
      )
    }
    return fitted
  }
  for (let count = 2; ; count++) {
    const size = Math.max(room.least, Math.min(room.size, room.size / count / LEADING))
    const lines = wrapped(text, room.width, (part) => widthOf(part, size))
    if (lines.length <= count || size === room.least) return noHigher(setAs(lines, size, widthOf))
  }
}

const setAs = (lines: readonly string[], size: number, widthOf: (text: string, size: number) => number): Typeset => ({
  ...{ lines, size, height: lines.length * size * LEADING },
  width: Math.max(...lines.map((line) => widthOf(line, size))),
})

const graphemes = new Intl.Segmenter(undefined, { granularity: 'grapheme' })

/** Lines between words; a word that is wider than its room is broken between letters. */
function wrapped(text: string, width: number, widthOf: (text: string) => number): string[] {
  const lines: string[] = []
  let line = ''
  const place = (part: string, joint: string): void => {
    if (line && widthOf(line + joint + part) > width) {
      lines.push(line)
      line = part
    } else line = line ? line + joint + part : part
  }
  for (const word of text.split(/\s+/).filter(Boolean)) {
    if (widthOf(word) <= width) place(word, ' ')
    else [...graphemes.segment(word)].forEach(({ segment }, at) => place(segment, at || !line ? '' : ' '))
  }
  return line ? [...lines, line] : lines
}

/** Draws a text that was set. @param y of the foot of its last line's letters. */
export function drawTypeset(
  surface: Surface,
  face: Face,
  { lines, size }: Typeset,
  { x, y }: { x: number; y: number },
): void {
  surface.font = faceAt(face, size)
  lines.forEach((line, at) => surface.fillText(line, x, y - (lines.length - 1 - at) * size * LEADING))
}
