import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { laidTogether, overlap, TILE_STEP, tilesOf, type Cover, type Tile } from './tiles'

const FRAME = { width: 1280, height: 720 }

const anyCover: fc.Arbitrary<Cover> = fc.array(
  fc.option(
    fc.tuple(fc.nat(30), fc.integer({ min: 1, max: 20 })).map(([from, length]) => ({ from, to: from + length })),
  ),
  { minLength: 1, maxLength: 20 },
)

describe('the rectangles of a layer', () => {
  it('hold all that is ever drawn, never overlap, and are no more than one would be', () => {
    fc.assert(
      fc.property(anyCover, (cover) => {
        const size = { width: 50 * TILE_STEP - 6, height: cover.length * TILE_STEP - 2 }
        const tiles = tilesOf(cover, size, FRAME)
        for (const [row, one] of cover.entries())
          for (let column = one?.from ?? 0; column < (one?.to ?? 0); column++) {
            const [x, y] = [column * TILE_STEP, row * TILE_STEP]
            const holding = tiles.filter(
              (tile) => x >= tile.x && x < tile.x + tile.width && y >= tile.y && y < tile.y + tile.height,
            )
            expect(holding).toHaveLength(1)
          }
        for (const tile of tiles) {
          expect(tile.x % 2 || tile.y % 2).toBe(0)
          expect(tile.x + tile.width).toBeLessThanOrEqual(size.width)
          expect(tile.y + tile.height).toBeLessThanOrEqual(size.height)
        }
        expect(tiles.length).toBeLessThanOrEqual(3)
      }),
    )
  })
  it('are a narrow one over a wide one where one alone would be mostly empty', () => {
    const cover = [
      ...Array.from({ length: 16 }, () => ({ from: 0, to: 11 })),
      ...Array.from({ length: 4 }, () => ({ from: 0, to: 80 })),
    ]
    expect(tilesOf(cover, { width: 1280, height: 320 }, FRAME)).toEqual([
      { x: 0, y: 0, width: 176, height: 256 },
      { x: 0, y: 256, width: 1280, height: 64 },
    ])
    expect(tilesOf([null, null], { width: 64, height: 32 }, FRAME)).toEqual([])
  })
})

const anyTile: fc.Arbitrary<Tile> = fc
  .tuple(fc.nat(600), fc.nat(300), fc.integer({ min: 1, max: 340 }), fc.integer({ min: 1, max: 180 }))
  .map(([x, y, width, height]) => ({ x: 2 * x, y: 2 * y, width: 2 * width, height: 2 * height }))

describe('the rectangles of all layers', () => {
  it('hold each of theirs as a whole, and none lies over another', () => {
    fc.assert(
      fc.property(fc.array(anyTile, { maxLength: 8 }), (tiles) => {
        const places = laidTogether(tiles, FRAME)
        for (const tile of tiles)
          expect(
            places.filter(
              (place) =>
                place.x <= tile.x &&
                place.y <= tile.y &&
                place.x + place.width >= tile.x + tile.width &&
                place.y + place.height >= tile.y + tile.height,
            ),
          ).toHaveLength(1)
        places.forEach((one, at) => {
          for (const other of places.slice(at + 1)) expect(overlap(one, other)).toBe(false)
        })
      }),
    )
  })
  it('are one where they lie beside each other, and two where most between them would be empty', () => {
    const count = { x: 0, y: 560, width: 180, height: 160 }
    const plate = { x: 0, y: 586, width: 1280, height: 134 }
    const title = { x: 40, y: 20, width: 400, height: 60 }
    expect(laidTogether([plate, count, title], FRAME)).toEqual([{ x: 0, y: 560, width: 1280, height: 160 }, title])
    expect(laidTogether([], FRAME)).toEqual([])
  })
})
