import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { calibrated } from './calibration'

const mass = fc.double({ min: 0, max: 1, noNaN: true })

describe('what a weight is worth', () => {
  it('rises with it, and is never certain', () => {
    fc.assert(
      fc.property(mass, mass, (one, other) => {
        const [low, high] = one < other ? [one, other] : [other, one]
        expect(calibrated(low)).toBeLessThanOrEqual(calibrated(high))
        expect(calibrated(high)).toBeLessThan(1)
      }),
    )
  })
  it('is less than itself where what was heard fits in more than one way', () => {
    expect(calibrated(0.95)).toBeLessThan(0.9)
    expect(calibrated(0.6)).toBeLessThan(0.6)
    expect(calibrated(0)).toBe(0)
  })
})
