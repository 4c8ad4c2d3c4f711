import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { carrierOf, carry, type Length } from './lengths'

/** What a length adds, cell by cell: the sum that `carry` is a fast way to. */
function slowly(from: Float64Array, length: Length, stepMs: number): Float64Array {
  const into = new Float64Array(from.length)
  const impulse = new Float64Array(from.length)
  from.forEach((weight, at) => {
    if (!weight) return
    impulse.fill(0)
    impulse[0] = 1
    const one = new Float64Array(from.length)
    carry(impulse, one, carrierOf(length, 1, { cells: from.length, stepMs }))
    one.forEach((share, cell) => {
      if (at + cell < into.length) into[at + cell] = (into[at + cell] ?? 0) + weight * share
    })
  })
  return into
}

const about = (atMs: number, scaleMs: number): Length => [{ weight: 1, shape: 'about', atMs, scaleMs }]

describe('a length', () => {
  it('of what is about so long falls off to both sides, and is never shorter than the least', () => {
    const cells = 400
    const from = new Float64Array(cells)
    from[100] = 1
    const into = new Float64Array(cells)
    carry(from, into, carrierOf(about(5000, 10_000), 1, { cells, stepMs: 100 }))
    // 5 s on, and nearer to it more; nothing within a second, or before.
    expect([...into.slice(0, 110)].every((one) => one === 0)).toBe(true)
    expect(into[110]).toBeGreaterThan(0)
    expect(into[150]).toBe(Math.max(...into))
    for (let cell = 111; cell <= 150; cell++) expect(into[cell]).toBeGreaterThan(into[cell - 1] ?? 0)
    // By hand: a step of 100 ms keeps e^(-1/100).
    expect((into[149] ?? 0) / (into[150] ?? 1)).toBeCloseTo(Math.exp(-1 / 100), 9)
    expect((into[151] ?? 0) / (into[150] ?? 1)).toBeCloseTo(Math.exp(-1 / 100), 9)
  })

  it('has all its weight, however much of it would lie below the least', () => {
    const cells = 20_000
    for (const [atMs, scaleMs] of [
      [5000, 10_000],
      [60_000, 36_000],
      [0, 1000],
      [500, 400],
    ] as const) {
      const from = new Float64Array(cells)
      from[0] = 1
      const into = new Float64Array(cells)
      carry(from, into, carrierOf(about(atMs, scaleMs), 1, { cells, stepMs: 100 }))
      expect(
        into.reduce((sum, one) => sum + one, 0),
        `${atMs} ${scaleMs}`,
      ).toBeCloseTo(1, 6)
    }
  })

  const part = fc.record({ atMs: fc.integer({ min: 0, max: 6000 }), scaleMs: fc.integer({ min: 50, max: 9000 }) })
  const weights = fc.array(fc.constantFrom(0, 0, 1, 0.5), { minLength: 1, maxLength: 120 })

  it('carries every cell as it carries one, and nothing backward, whatever the weights', () => {
    fc.assert(
      fc.property(part, weights, fc.constantFrom('near', 'about', 'over' as const), (found, list, shape) => {
        const length: Length = [{ weight: 1, shape, ...found }]
        const from = Float64Array.from(list)
        const into = new Float64Array(from.length)
        carry(from, into, carrierOf(length, 1, { cells: from.length, stepMs: 100 }))
        slowly(from, length, 100).forEach((one, cell) => expect(into[cell]).toBeCloseTo(one, 9))
        const first = from.findIndex((one) => one > 0)
        const until = first < 0 ? from.length : first + 1
        expect([...into.slice(0, until)].every((one) => one === 0)).toBe(true)
      }),
    )
  })
})
