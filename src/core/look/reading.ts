// How large letters have to be to be read from where somebody stands, and how a text is set so that it is. Lengths on
// screen are CSS pixels, which are 1/96 inch at arm's length; what a screen really measures, a browser does not say.

/** Minutes of arc that a capital has to fill: the count, what matters at a glance, and what is looked for. */
export const ARC_MINUTES = { count: 40, glance: 20, look: 12 } as const
export type Reading = keyof typeof ARC_MINUTES

const MM_PER_PX = 25.4 / 96
const RADIANS_PER_MINUTE = Math.PI / (180 * 60)
/** Height of a capital or digit in the display face, of its font size. Measured on its outlines. */
const CAPITAL_SHARE = 0.72

/** @returns the least font size, in pixels, for a distance in metres. */
export const fontPxFor = (reading: Reading, metres: number): number =>
  (metres * 1000 * Math.tan(ARC_MINUTES[reading] * RADIANS_PER_MINUTE)) / (MM_PER_PX * CAPITAL_SHARE)

/** @returns from how many metres text of a font size can be read. */
export const readableFrom = (reading: Reading, fontPx: number): number =>
  (fontPx * CAPITAL_SHARE * MM_PER_PX) / (1000 * Math.tan(ARC_MINUTES[reading] * RADIANS_PER_MINUTE))

/** A text as it is set: in one line or more, of one size. */
export interface SetText {
  lines: string[]
  px: number
}

interface Room {
  width: number
  height: number
  /** Not larger than this, however much room there is. */
  mostPx: number
  /** Room from one line to the next, of the font size. */
  leading: number
}

/**
 * Sets a text as large as its room allows, broken between words into up to three lines.
 * @param widthOf width of a line at font size 1.
 */
export function setInto(
  text: string,
  { width, height, mostPx, leading }: Room,
  widthOf: (line: string) => number,
): SetText {
  const settings = [1, 2, 3].flatMap((count): SetText[] => {
    const lines = broken(text, count, widthOf)
    if (lines.length !== count) return []
    const widest = Math.max(...lines.map(widthOf), Number.EPSILON)
    return [{ lines, px: Math.min(mostPx, width / widest, height / (count * leading)) }]
  })
  return settings.reduce((best, one) => (one.px > best.px ? one : best), { lines: [text], px: 0 })
}

/** The words in so many lines of which the widest is as narrow as can be. */
function broken(text: string, count: number, widthOf: (line: string) => number): string[] {
  const words = text.split(/\s+/).filter(Boolean)
  if (count === 1) return [words.join(' ')]
  let best: string[] = []
  let narrowest = Infinity
  for (let at = 1; at < words.length; at++) {
    const rest = broken(words.slice(at).join(' '), count - 1, widthOf)
    if (rest.length !== count - 1) continue
    const lines = [words.slice(0, at).join(' '), ...rest]
    const widest = Math.max(...lines.map(widthOf))
    if (widest < narrowest) {
      narrowest = widest
      best = lines
    }
  }
  return best
}
