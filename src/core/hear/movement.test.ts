import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { MovementListener, SMALL_PICTURE } from './movement'

const { width, height, rate } = SMALL_PICTURE
/** A bright figure on a grey ground, with a recorder's noise; it swings where somebody moves. */
function picture(atS: number, moves: boolean, noise: () => number): Uint8Array {
  const middle = Math.round(width / 2 + (moves ? 10 * Math.sin(atS * 4) : 0))
  return Uint8Array.from({ length: width * height }, (_, at) => {
    const lit = Math.abs((at % width) - middle) < 5 ? 210 : 90
    return lit + 2 * noise() - 1
  })
}
function seen(seconds: number, movesAt: (atS: number) => boolean, change?: (one: Uint8Array, atS: number) => void) {
  const listener = new MovementListener()
  let state = 1
  const noise = (): number => (state = (state * 16807) % 2147483647) / 2147483647
  for (let at = 0; at < seconds * rate; at++) {
    const one = picture(at / rate, movesAt(at / rate), noise)
    change?.(one, at / rate)
    listener.push(one)
  }
  return listener.finish()
}

describe('movement', () => {
  it('is seen to begin and to end', () => {
    const found = seen(90, (atS) => atS >= 20 && atS < 50)
    expect(found.map(({ begins }) => begins)).toEqual([true, false])
    expect(found[0]?.atMs).toBeGreaterThan(19_000)
    expect(found[0]?.atMs).toBeLessThan(21_000)
    expect(found[1]?.atMs).toBeGreaterThan(49_000)
    expect(found[1]?.atMs).toBeLessThan(51_000)
    expect(Math.min(...found.map(({ strength }) => strength))).toBeGreaterThan(0.5)
  })
  it('is none in a hold, in a recorder’s noise, or where the light changes', () => {
    expect(seen(60, () => false)).toEqual([])
    expect(seen(60, () => true)).toEqual([])
    const dimmed = seen(
      60,
      () => false,
      (one, atS) => {
        if (atS >= 30) for (let at = 0; at < one.length; at++) one[at] = (one[at] ?? 0) / 3
      },
    )
    expect(dimmed).toEqual([])
  })
  it('is told in order of time and within what it may be, whatever the pictures', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 255 }), { maxLength: 200 }), (greys) => {
        const listener = new MovementListener()
        for (const grey of greys) listener.push(new Uint8Array(width * height).fill(grey))
        const found = listener.finish()
        found.forEach(({ atMs, strength }, at) => {
          expect(atMs).toBeGreaterThanOrEqual((found[at - 1]?.atMs ?? -1) + 1)
          expect(atMs).toBeLessThan((greys.length / rate) * 1000)
          expect(strength).toBeGreaterThanOrEqual(0)
          expect(strength).toBeLessThanOrEqual(1)
        })
      }),
      { numRuns: 50 },
    )
  })
})
