// The picture that stands for a video where nobody plays it: an instant of the footage with a few words on it, drawn by
// the same code in every size.
import { z } from 'zod'
import type { Size } from '../cut/framing'
import { DISPLAY } from './looks/marks'
import { TONE_NAMES, TONES } from './looks/tones'
import type { Surface } from './surface'
import { drawTypeset, typeset } from './typeset'

export const TEXT_SIZES = ['small', 'medium', 'large'] as const
/** The foot's right end is where hosts write how long a video is. */
export const TEXT_PLACES = ['topLeft', 'topRight', 'bottomLeft', 'middle'] as const

export const thumbnailSchema = z.object({
  /** Of the video; null a third of the way in. */
  atMs: z.number().min(0).nullable().default(null),
  /** Null the workout's title. */
  text: z.string().max(120).nullable().default(null),
  size: z.enum(TEXT_SIZES).default('medium'),
  place: z.enum(TEXT_PLACES).default('bottomLeft'),
  tone: z.enum(TONE_NAMES).default('dark'),
})
export type Thumbnail = z.infer<typeof thumbnailSchema>

/** Pixels of its shorter side. */
const SHORTER = 720
/** The width at which lists show it. */
export const SMALLEST_WIDTH = 168
/** Of the face that it is set in, in shares of its size. */
const CAPITAL = 0.7

/** Hundredths of the shorter side; however many words there are, they can be read in the smallest size (a test). */
const LETTERS: Record<Thumbnail['size'], number> = { small: 13, medium: 18, large: 25 }
const EDGE = 4
const PADDING = 3.5
const BAR = 1.8

export function thumbnailSize({ width, height }: Size): Size {
  const share = SHORTER / Math.min(width, height)
  return { width: Math.round(width * share), height: Math.round(height * share) }
}

/**
 * Draws the words over a picture that is there already.
 * @returns how high capitals are where it is `SMALLEST_WIDTH` wide, in pixels; null where it has no words.
 */
export function drawThumbnail(
  surface: Surface,
  { width, height }: Size,
  thumbnail: Thumbnail & { text: string },
): number | null {
  const { place, tone: toneName } = thumbnail
  const text = thumbnail.text.trim()
  if (!text) return null
  const unit = Math.min(width, height) / 100
  const tone = TONES[toneName]
  const wide = width / unit,
    high = height / unit
  surface.save()
  surface.scale(unit, unit)
  const size = LETTERS[thumbnail.size]
  const room = { width: wide - 2 * (EDGE + PADDING) - BAR, size, least: size, most: high - 2 * (EDGE + PADDING) }
  const set = typeset(surface, DISPLAY, [text], room)
  const box = { width: set.width + 2 * PADDING + BAR, height: set.height + 2 * PADDING - 0.2 * set.size }
  const x = place === 'topRight' ? wide - EDGE - box.width : place === 'middle' ? (wide - box.width) / 2 : EDGE
  const y = place === 'bottomLeft' ? high - EDGE - box.height : place === 'middle' ? (high - box.height) / 2 : EDGE
  surface.fillStyle = tone.plate
  surface.fillRect(x, y, box.width, box.height)
  surface.fillStyle = tone.grounds.work.block
  surface.fillRect(x, y, BAR, box.height)
  surface.fillStyle = tone.text
  surface.textAlign = 'left'
  surface.textBaseline = 'alphabetic'
  drawTypeset(surface, DISPLAY, set, { x: x + BAR + PADDING, y: y + box.height - PADDING - 0.08 * set.size })
  surface.restore()
  return (set.size * unit * CAPITAL * SMALLEST_WIDTH) / width
}
