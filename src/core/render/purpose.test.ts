import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { PURPOSES, sizeFor } from './purpose'

describe('the size of a video', () => {
  it('is that of the footage, but where its purpose has a smaller one', () => {
    const film = { width: 1920, height: 1080 }
    expect(PURPOSES.map((purpose) => sizeFor(film, purpose).height)).toEqual([1080, 1080, 720, 480, 1080, 360])
    expect(sizeFor({ width: 1080, height: 1920 }, 'phone')).toEqual({ width: 720, height: 1280 })
    expect(sizeFor({ width: 320, height: 180 }, 'draft')).toEqual({ width: 320, height: 180 })
  })
  it('is even, never larger, and of the same shape', () => {
    const side = fc.integer({ min: 8, max: 4000 }).map((half) => 2 * half)
    fc.assert(
      fc.property(side, side, fc.constantFrom(...PURPOSES), (width, height, purpose) => {
        const size = sizeFor({ width, height }, purpose)
        expect([size.width % 2, size.height % 2]).toEqual([0, 0])
        expect(size.width).toBeLessThanOrEqual(width)
        expect(size.height).toBeLessThanOrEqual(height)
        expect(Math.abs(size.width - (size.height * width) / height)).toBeLessThanOrEqual(1 + width / height)
      }),
    )
  })
})
