import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { EvidenceOf } from '../evidence'
import { joinedReel } from './reel'

const beep = (atMs: number): EvidenceOf<'beep'> => ({
  ...{ kind: 'beep', atMs, spreadMs: 3, hz: 2000, durationMs: 300, strength: 0.9 },
})
const file = fc.record({
  footageMs: fc.integer({ min: 1, max: 100_000 }),
  shares: fc.array(fc.double({ min: 0, max: 0.999, noNaN: true }), { maxLength: 6 }),
})

describe('a reel', () => {
  it('says of every instant which file it lies in, and where', () => {
    fc.assert(
      fc.property(fc.array(file, { minLength: 1, maxLength: 5 }), (files) => {
        const parts = files.map(({ footageMs, shares }) => ({
          footageMs,
          evidence: shares.toSorted((one, other) => one - other).map((share) => beep(share * footageMs)),
        }))
        const { evidence, footageMs, placeOf } = joinedReel(parts)
        expect(footageMs).toBe(parts.reduce((sum, one) => sum + one.footageMs, 0))
        const places = evidence.map(({ atMs }) => placeOf(atMs))
        const wanted = parts.flatMap((part, footage) => part.evidence.map(({ atMs }) => ({ footage, footageMs: atMs })))
        expect(places.map(({ footage }) => footage)).toEqual(wanted.map(({ footage }) => footage))
        places.forEach((place, at) => expect(place.footageMs).toBeCloseTo(wanted[at]?.footageMs ?? -1, 5))
        expect(evidence.every((one, at) => at === 0 || (evidence[at - 1]?.atMs ?? 0) <= one.atMs)).toBe(true)
      }),
    )
  })
})
