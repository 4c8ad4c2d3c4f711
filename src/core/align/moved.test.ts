import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { byTime, type Evidence, type EvidenceOf } from '../evidence'
import { expand } from '../expand/expand'
import { readShorthand } from '../shorthand/read'
import { boundariesOf } from './boundaries'
import { decode } from './decode'
import { movementLikelihood } from './moved'
import { matchEvidence } from './sync'

const { segments } = expand(readShorthand('circuit Main: 4 rounds, 40 on, 20 off\n  Jug lift; Keel hold\n').score)
const boundaries = boundariesOf(segments)
const FOOTAGE_MS = 700_000
const BEGAN_MS = 30_000
const leap = (atMs: number, begins: boolean): EvidenceOf<'motion'> => ({
  ...{ kind: 'motion', atMs, spreadMs: 800, strength: 0.8, begins },
})
const kindOf = (at: number): string | undefined => segments[at]?.kind
const moves = boundaries.flatMap(({ plannedMs, audible }, at) =>
  audible ? [leap(plannedMs + BEGAN_MS + 400, kindOf(at) === 'work')] : [],
)

describe('movement', () => {
  it('ties nothing by itself', () => {
    expect(matchEvidence(segments, { evidence: moves, footageMs: FOOTAGE_MS })).toEqual({
      found: [],
      likeness: 0,
      doubtful: false,
    })
  })
  it('weighs between places that tones leave open', () => {
    // The timer was heard in the middle of it: the same tones fit a round earlier and a round later.
    const tones = boundaries
      .slice(4, 12)
      .map(({ plannedMs }): EvidenceOf<'beep'> => ({
        ...{ kind: 'beep', atMs: plannedMs + BEGAN_MS, spreadMs: 3, hz: 2000, durationMs: 400, strength: 0.9 },
      }))
    const massAt = (evidence: readonly Evidence[]): number => {
      const [first] = decode(segments, { evidence, footageMs: FOOTAGE_MS }).posteriors[6]?.instants ?? []
      const trueMs = (boundaries[6]?.plannedMs ?? 0) + BEGAN_MS
      return first && Math.abs(first.footageMs - trueMs) < 100 ? first.mass : 0
    }
    const without = massAt(tones)
    expect(without).toBeLessThan(0.9)
    expect(massAt([...tones, ...moves].sort(byTime))).toBeGreaterThan(without + 0.1)
  })
  it('makes no instant much likelier or less likely, however much of it there is', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: FOOTAGE_MS }), fc.boolean()), { maxLength: 300 }),
        fc.constantFrom('work', 'rest', null),
        (leaps, begins) => {
          const seen = leaps.map(([atMs, one]) => leap(atMs, one))
          const whole = { expected: 17, footageMs: FOOTAGE_MS }
          const field = movementLikelihood(seen, begins, { cells: 7000, stepMs: 100 }, whole)
          expect(Math.min(...field)).toBeGreaterThan(0.7)
          expect(Math.max(...field)).toBeLessThan(30)
        },
      ),
      { numRuns: 50 },
    )
  })
})
