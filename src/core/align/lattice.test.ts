import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { endings, mirrored, runForward, type Lattice } from './lattice'
import type { Length } from './lengths'

const length = (atMs: number): Length => [
  { weight: 0.7, shape: 'near', atMs, scaleMs: 150 },
  { weight: 0.15, shape: 'about', atMs, scaleMs: 400 },
  { weight: 0.1, shape: 'over', atMs, scaleMs: 2000 },
  { weight: 0.05, shape: 'any', atMs: 1000, scaleMs: 0 },
]

const shapes = fc.record({
  seconds: fc.array(fc.integer({ min: 2, max: 12 }), { minLength: 3, maxLength: 7 }),
  loud: fc.array(fc.nat(399), { maxLength: 8 }),
  fixed: fc.option(fc.tuple(fc.nat(3), fc.nat(399))),
  borders: fc.uniqueArray(fc.integer({ min: 1, max: 399 }), { maxLength: 2 }),
})
type Shape = typeof shapes extends fc.Arbitrary<infer Value> ? Value : never

function latticeOf({ seconds, loud, fixed, borders }: Shape): Lattice {
  const cells = 400
  const plain = new Float64Array(cells).fill(0.3)
  for (const cell of loud) plain[cell] = 40
  const plannedMs = seconds.map((one) => one * 1000)
  const lengths = plannedMs.map(length)
  const tied = new Float64Array(cells)
  if (fixed) tied[fixed[1]] = 1
  const count = lengths.length + 1
  const isTied = (at: number): boolean => fixed?.[0] === at
  return {
    ...{ cells, stepMs: 100, extra: [plain, plain], lengths, plannedMs },
    likelihoods: Array.from({ length: count }, (_, at) => (isTied(at) ? tied : plain)),
    again: lengths.map((rest, at) => (at % 2 ? { rest, work: lengths[at - 1] ?? rest } : null)),
    leftOut: Array.from({ length: Math.max(0, count - 3) }, (_, at) => (at % 2 ? (lengths[at] ?? null) : null)),
    fixed: Array.from({ length: count }, (_, at) => isTied(at)),
    borders: borders.sort((one, other) => one - other),
  }
}

/** The weight of all paths, from one end. */
function total(lattice: Lattice): number {
  const ends = endings(lattice)
  let sum = 0
  runForward(lattice, (at, alpha, logScale) => {
    const { within = 0, near = 0, far = 0 } = ends[at] ?? {}
    alpha.forEach((value, cell) => {
      sum += value * (cell < lattice.cells - within ? far : near) * Math.exp(logScale)
    })
  })
  return sum
}

describe('the lattice', () => {
  it('weighs all paths alike from either end', () => {
    fc.assert(
      fc.property(shapes, (shape) => {
        const lattice = latticeOf(shape)
        const there = total(lattice),
          back = total(mirrored(lattice))
        expect(Math.abs(there - back)).toBeLessThanOrEqual(1e-9 * Math.max(there, back))
      }),
      { numRuns: 60 },
    )
  })
})
