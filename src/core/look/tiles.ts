// Where in a layer there is ever anything: a few rectangles, one above another, instead of one that is mostly empty.
// Laying a pixel over a picture takes as long where nothing is to be seen.

export interface Tile {
  x: number
  y: number
  width: number
  height: number
}

/** Side of the squares that a layer is looked at by, in pixels; even, as the colours of a video need. */
export const TILE_STEP = 16
const MOST_TILES = 3
/** One more rectangle takes as long as so many pixels. */
const PIXELS_OF_ONE = 15_000

/** Of each row of squares the columns `[from, to)` between which there is anything; null where there is nothing. */
export type Cover = ({ from: number; to: number } | null)[]

/**
 * @param cover of all that is ever drawn.
 * @param size of the layer in pixels.
 * @returns from the top down; none where there is never anything.
 */
export function tilesOf(cover: Cover, size: { width: number; height: number }): Tile[] {
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
  const costOf = (tile: Tile | null): number => (tile ? tile.width * tile.height + PIXELS_OF_ONE : 0)
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
