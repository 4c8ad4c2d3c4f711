import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { TILE_STEP, tilesOf, type Cover } from './tiles'

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
        const tiles = tilesOf(cover, size)
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
      ...Array.from({ length: 12 }, () => ({ from: 0, to: 11 })),
      ...Array.from({ length: 4 }, () => ({ from: 0, to: 80 })),
    ]
    expect(tilesOf(cover, { width: 1280, height: 256 })).toEqual([
      { x: 0, y: 0, width: 176, height: 192 },
      { x: 0, y: 192, width: 1280, height: 64 },
    ])
    expect(tilesOf([null, null], { width: 64, height: 32 })).toEqual([])
  })
})
