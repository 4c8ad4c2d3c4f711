import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { SMALL_PICTURE } from '../hear/movement'
import { MovementPath } from './followed'
import { aimAt, aimsOf, aimsWithin, framedSize, framingSchema, partOf, SHAPE_NAMES, withKey } from './framing'

const WIDE = { width: 1280, height: 720 },
  TALL = { width: 720, height: 1280 }

describe('a video of another shape', () => {
  it('is a part of the footage, and no smaller than it along its shorter side', () => {
    expect([partOf(WIDE, 'upright'), framedSize(WIDE, 'upright')]).toEqual([
      { width: 406, height: 720 },
      { width: 720, height: 1280 },
    ])
    expect([partOf(WIDE, 'square'), framedSize(WIDE, 'square')]).toEqual([
      { width: 720, height: 720 },
      { width: 720, height: 720 },
    ])
    expect([partOf(TALL, 'wide'), framedSize(TALL, 'wide')]).toEqual([
      { width: 720, height: 406 },
      { width: 1280, height: 720 },
    ])
    expect([partOf(WIDE, 'wide'), framedSize(WIDE, 'filmed')]).toEqual([WIDE, WIDE])
  })
  it('has even sides and lies within the footage, of whatever size that is', () => {
    const side = fc.integer({ min: 16, max: 4000 }).map((half) => half * 2)
    fc.assert(
      fc.property(side, side, fc.constantFrom(...SHAPE_NAMES), (width, height, shape) => {
        const part = partOf({ width, height }, shape),
          size = framedSize({ width, height }, shape)
        for (const one of [part.width, part.height, size.width, size.height]) expect(one % 2).toBe(0)
        expect(part.width).toBeLessThanOrEqual(width)
        expect(part.height).toBeLessThanOrEqual(height)
      }),
    )
  })
})

describe('where it looks', () => {
  const key = (atMs: number, at: number, footage = 'one') => ({ footage, atMs, at })
  const framing = framingSchema.parse({ shape: 'upright', keys: [key(3000, 1), key(1000, 0), key(0, 0.9, 'two')] })
  it('goes straight from key to key, of the file that is seen', () => {
    const aims = aimsOf(framing, 'one')
    expect([0, 1000, 2000, 2500, 9000].map((ms) => aimAt(aims, ms))).toEqual([0, 0, 0.5, 0.75, 1])
    expect(aimAt(aimsOf(framing, 'three'), 5)).toBe(0.5)
  })
  it('is told in the time of a piece, whatever its rate', () => {
    const aims = aimsOf(framing, 'one')
    expect(aimsWithin(aims, { fromMs: 2000, lengthMs: 4000, rate: 0.5 })).toEqual([
      { atMs: 0, at: 0.5 },
      { atMs: 2000, at: 1 },
      { atMs: 4000, at: 1 },
    ])
    expect(aimsWithin(aims, { fromMs: 2000, lengthMs: 4000, rate: 0 })).toEqual([{ atMs: 0, at: 0.5 }])
  })
  it('has one key where two would stand together', () => {
    const more = withKey(withKey(framing, key(1200, 0.3)), key(7000, 0.2))
    expect(aimsOf(more, 'one').map(({ atMs }) => atMs)).toEqual([1200, 3000, 7000])
    expect(more.keys).toHaveLength(4)
  })
})

/** A bright block in the dark that stands at `middle` and shakes, as somebody who works. */
function pictureAt(middle: number, shake: number): Uint8Array {
  const { width, height } = SMALL_PICTURE
  const picture = new Uint8Array(width * height).fill(40)
  const left = Math.round(middle * width) - 5 + shake
  for (let y = 15; y < 45; y++)
    for (let x = left; x < left + 10; x++) if (x >= 0 && x < width) picture[y * width + x] = 210
  return picture
}

describe('movement that is followed', () => {
  const follow = (middleAt: (second: number) => number, seconds = 60) => {
    const path = new MovementPath('across')
    for (let picture = 0; picture < seconds * SMALL_PICTURE.rate; picture++)
      path.push(pictureAt(middleAt(picture / SMALL_PICTURE.rate), picture % 2))
    return path.finish(0.3)
  }
  it('keeps somebody in the middle of the part, as far as the picture goes', () => {
    const aims = follow((second) => (second < 30 ? 0.25 : 0.7))
    // A part of 0.3 that has 0.25 in its middle begins at 0.1 of the 0.7 that there is room for.
    expect(aimAt(aims, 15_000)).toBeCloseTo(0.1 / 0.7, 1)
    expect(aimAt(aims, 45_000)).toBeCloseTo(0.55 / 0.7, 1)
    expect(follow(() => 0.02)[0]!.at).toBe(0)
    expect(aims.length).toBeLessThan(12)
  })
  it('has one key where nobody leaves their place, and none where nobody is', () => {
    expect(follow(() => 0.5)).toHaveLength(1)
    const path = new MovementPath('across')
    for (let picture = 0; picture < 100; picture++) path.push(new Uint8Array(96 * 54).fill(picture % 7))
    expect(path.finish(0.3)).toEqual([])
  })
  it('does not go after the light', () => {
    const path = new MovementPath('across')
    for (let picture = 0; picture < 100; picture++)
      path.push(pictureAt(0.5, 0).map((one) => one + (picture === 50 ? 40 : 0)))
    expect(path.finish(0.3)).toEqual([])
  })
})
