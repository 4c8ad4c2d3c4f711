// Where in the frame there is ever anything: a few rectangles instead of one that is mostly empty. Laying a pixel over
// a picture takes as long where nothing is to be seen, and each further rectangle takes as long as copying the picture.
import type { Frame } from './drawOverlay'

export interface Tile {
  x: number
  y: number
  width: number
  height: number
}

/** Side of the squares that a layer is looked at by, in pixels; even, as the colours of a video need. */
export const TILE_STEP = 16
const MOST_TILES = 3
/** Copying a pixel takes so much of laying one (docs/measurements.md). */
const COPIED = 1 / 8
/** One more rectangle takes as long as laying so many pixels. */
const pixelsOfOne = (frame: Frame): number => frame.width * frame.height * COPIED

/** Of each row of squares the columns `[from, to)` between which there is anything; null where there is nothing. */
export type Cover = ({ from: number; to: number } | null)[]

/**
 * @param cover of all that is ever drawn.
 * @param size of the layer in pixels.
 * @param frame that it is laid over.
 * @returns from the top down; none where there is never anything.
 */
export function tilesOf(cover: Cover, size: Frame, frame: Frame): Tile[] {
  const tileOf = (top: number, end: number): Tile | null => {
    const rows = cover.slice(top, end)
    const first = rows.findIndex(Boolean),
      last = rows.findLastIndex(Boolean)
    if (first < 0) return null
    const used = rows.flatMap((row) => row ?? [])
    const x = Math.min(...used.map(({ from }) => from)) * TILE_STEP,
      y = (top + first) * TILE_STEP
    const right = Math.min(size.width, Math.max(...used.map(({ to }) => to)) * TILE_STEP),
      foot = Math.min(size.height, (top + last + 1) * TILE_STEP)
    return { x, y, width: right - x, height: foot - y }
  }
  const costOf = (tile: Tile | null): number => (tile ? areaOf(tile) + pixelsOfOne(frame) : 0)
  // The least cost of all rows up to each, in so many rectangles: each is the last of some shorter division.
  let best = cover.map((_, at) => ({ cost: costOf(tileOf(0, at + 1)), tiles: [tileOf(0, at + 1)] }))
  for (let parts = 2; parts <= MOST_TILES; parts++)
    best = best.map((one, at) => {
      let least = one
      for (let cut = 1; cut <= at; cut++) {
        const before = best[cut - 1]
        const tile = tileOf(cut, at + 1)
        const cost = (before?.cost ?? 0) + costOf(tile)
        if (before && before.tiles.length < parts && cost < least.cost) least = { cost, tiles: [...before.tiles, tile] }
      }
      return least
    })
  return (best.at(-1)?.tiles ?? []).flatMap((tile) => tile ?? [])
}

const areaOf = ({ width, height }: Tile): number => width * height

/** Rectangles of all layers as they are laid: none over another, and no two that are laid sooner as one. */
export function laidTogether(tiles: readonly Tile[], frame: Frame): Tile[] {
  const [first, ...others] = tiles
  if (!first) return []
  const at = others.findIndex((other) => {
    const both = around(first, other)
    return overlap(first, other) || areaOf(both) <= areaOf(first) + areaOf(other) + pixelsOfOne(frame)
  })
  const partner = others[at]
  if (partner) return laidTogether([around(first, partner), ...others.toSpliced(at, 1)], frame)
  const rest = laidTogether(others, frame)
  // What has become of the others may reach here now.
  return rest.length < others.length ? laidTogether([...rest, first], frame) : [first, ...rest]
}

function around(one: Tile, other: Tile): Tile {
  const x = Math.min(one.x, other.x),
    y = Math.min(one.y, other.y)
  const right = Math.max(one.x + one.width, other.x + other.width),
    foot = Math.max(one.y + one.height, other.y + other.height)
  return { x, y, width: right - x, height: foot - y }
}

export const overlap = (one: Tile, other: Tile): boolean =>
  one.x < other.x + other.width &&
  other.x < one.x + one.width &&
  one.y < other.y + other.height &&
  other.y < one.y + one.height
