// Any cut, and the rates of its pictures, for property tests.
import fc from 'fast-check'
import type { Cut } from '../cut/cut'
import { SpanList } from '../cut/spans'

export const RATES = [
  { num: 30, den: 1 },
  { num: 30_000, den: 1001 },
  { num: 24_000, den: 1001 },
  { num: 60, den: 1 },
]

export const anyCut: fc.Arbitrary<Cut> = fc
  .array(
    fc.record({
      kind: fc.constantFrom('film', 'film', 'card', 'hold'),
      fromMs: fc.nat({ max: 60_000 }),
      lengthMs: fc.integer({ min: 1, max: 9000 }),
    }),
    { minLength: 1, maxLength: 12 },
  )
  .map((parts) => {
    const list = new SpanList()
    for (const { kind, fromMs, lengthMs } of parts)
      if (kind === 'film') list.show({ fromMs, toMs: fromMs + lengthMs, segmentId: null, why: 'filmed' })
      else if (kind === 'card') list.card(lengthMs, null)
      else list.hold(fromMs, lengthMs, { segmentId: null })
    return list.cut
  })
