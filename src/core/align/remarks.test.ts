import { describe, expect, it } from 'vitest'
import { expand } from '../expand/expand'
import { circuit, score, station } from '../testing'
import { boundariesOf } from './boundaries'
import { remarksOn } from './remarks'
import { handStitch, type Stitch } from './ties'

const { segments } = expand(score(circuit({ rounds: 2, stations: [station('Jug lift'), station('Keel hold')] })))
const boundaries = boundariesOf(segments)
const tied = (change: (at: number) => Partial<Stitch> & { shiftMs?: number } = () => ({})): Stitch[] =>
  boundaries.map((boundary, at) => {
    const { shiftMs = 0, ...rest } = change(at)
    return { ...handStitch({ ...boundary, footageMs: 4000 + boundary.plannedMs + shiftMs }), ...rest }
  })
const nothingSaid = { segments, said: [], footageMs: 300_000 }
const codes = (stitches: Stitch[], cuesOn = true): string[] =>
  remarksOn({ ...nothingSaid, stitches, cuesOn }).map(({ code }) => code)

describe('what is remarked on a footage', () => {
  it('is nothing where nothing is tied, or all went as planned', () => {
    expect(codes([])).toEqual([])
    expect(codes(tied())).toEqual([])
  })

  it('is an interval that ran off its plan, the furthest by name', () => {
    const ran = tied((at) => ({ shiftMs: at > 3 ? 2600 : at > 1 ? 700 : 0 }))
    expect(remarksOn({ ...nothingSaid, stitches: ran, cuesOn: true })).toMatchObject([
      { code: 'ran-off', count: 2, plannedMs: 10_000, lastedMs: 11_900 },
    ])
  })

  it('is what nothing confirms, and what was not heard', () => {
    const unsure = tied((at) => (at === 2 ? { origin: 'heard', confidence: 0.6, evidence: ['word'] } : {}))
    expect(codes(unsure)).toEqual(['not-confirmed'])
    expect(codes(tied().filter((_, at) => at !== 3))).toEqual(['not-heard'])
  })

  it('is a number that is said and not so', () => {
    const said = { kind: 'said', counted: 'seconds', amount: 45, text: 'forty five seconds' } as const
    const heard = [{ ...said, atMs: 5000, spreadMs: 100, strength: 0.8 }]
    expect(remarksOn({ ...nothingSaid, stitches: tied(), said: heard, cuesOn: true })).toMatchObject([
      { code: 'said-otherwise', count: 1, first: { segment: { label: 'Jug lift' } } },
    ])
  })

  it("is the film's own timer, while cues would be added to it", () => {
    const beeps = tied(() => ({ origin: 'heard', confidence: 0.99, evidence: ['beep'] }))
    expect([codes(beeps), codes(beeps, false)]).toEqual([['own-timer'], []])
  })
})
