import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expand } from '../expand/expand'
import { circuit, score, talk } from '../testing'
import { shownIn, toOutput, toOutputs, toSource, type Cut, type Span } from './cut'
import { follow } from './follow'
import { lay } from './lane'

const { segments } = expand(score(talk('welcome', 10_000), circuit({ rounds: 2, roundBreakMs: 15_000 })))
const tie = { segmentId: segments[1]!.id, edge: 'start' as const, footageMs: 25_000 }
const laid = lay(segments, [tie], 120_000)

const spanOf = (of: Pick<Span, 'fromMs' | 'toMs' | 'outMs' | 'lengthMs' | 'rate'>): Span => ({
  ...{ source: 0, mirrored: false, segmentId: null, why: 'filmed', stillOf: null, ...of },
})

/** Any cut of one source: spans taken from it in any order, at any speed, laid end to end. */
const anyCut: fc.Arbitrary<Cut> = fc
  .array(
    fc.record({
      fromMs: fc.nat({ max: 100_000 }),
      lengthMs: fc.integer({ min: 1, max: 20_000 }),
      rate: fc.constantFrom(0.5, 1, 2),
    }),
    { minLength: 1, maxLength: 8 },
  )
  .map((parts) => {
    let outMs = 0
    const spans = parts.map(({ fromMs, lengthMs, rate }) => {
      const span = spanOf({ fromMs, toMs: fromMs + lengthMs, outMs, lengthMs: lengthMs / rate, rate })
      outMs += lengthMs / rate
      return span
    })
    return { outMs, spans }
  })

describe('many instants of a source', () => {
  it('come to where each of them comes to alone, in whatever order the source is shown', () => {
    const instants = fc.array(fc.nat({ max: 130_000 }), { maxLength: 40 })
    fc.assert(
      fc.property(anyCut, instants, (cut, list) => {
        const ends = cut.spans.flatMap(({ fromMs, toMs }) => [fromMs, toMs, toMs - 1])
        const rising = [...list, ...ends].sort((one, other) => one - other)
        expect(toOutputs(cut, 0, rising)).toEqual(rising.map((ms) => toOutput(cut, 0, ms)))
      }),
    )
  })
})

describe('a cut that follows the footage', () => {
  const cut = follow(laid, 120_000)
  it('shows all of it, in spans that lie end to end, each named after its segment', () => {
    expect(cut.outMs).toBe(120_000)
    for (const { source, fromMs, outMs, rate } of cut.spans) expect([source, fromMs, rate]).toEqual([0, outMs, 1])
    expect(cut.spans[0]).toMatchObject({ fromMs: 0, outMs: 0, segmentId: 'welcome/talk' })
    cut.spans
      .slice(1)
      .forEach((span, index) =>
        expect(span.outMs).toBe(cut.spans[index]!.outMs + cut.spans[index]!.toMs - cut.spans[index]!.fromMs),
      )
    expect(cut.spans.at(-1)).toMatchObject({ toMs: 120_000 })
  })
  it('makes footage time output time, for every segment', () => {
    expect(shownIn(cut, laid).map(({ startMs, endMs }) => [startMs, endMs])).toEqual(
      laid.map(({ fromMs, toMs }) => [fromMs, toMs]),
    )
    expect(shownIn(cut, laid)[1]).toMatchObject({ startTied: true, startMs: 25_000 })
  })
})

describe('the maps of any cut', () => {
  it('lead there and back', () => {
    fc.assert(
      fc.property(anyCut, fc.double({ min: 0, max: 0.999, noNaN: true }), (cut, share) => {
        const outMs = share * cut.outMs
        const at = toSource(cut, outMs)
        expect(at).not.toBeNull()
        const back = toOutput(cut, 0, at!.ms)
        // A source instant may be shown more than once; the first is told. It shows the same instant.
        expect(toSource(cut, back!)!.ms).toBeCloseTo(at!.ms, 6)
      }),
    )
  })
  it('know nothing of what was cut out, or lies outside', () => {
    const cut: Cut = {
      outMs: 3000,
      spans: [
        spanOf({ fromMs: 1000, toMs: 2000, outMs: 0, lengthMs: 1000, rate: 1 }),
        spanOf({ fromMs: 6000, toMs: 8000, outMs: 1000, lengthMs: 2000, rate: 1 }),
      ],
    }
    expect([500, 1500, 2000, 4000, 6000, 8000, 9000].map((ms) => toOutput(cut, 0, ms))).toEqual([
      null,
      500,
      1000,
      null,
      1000,
      3000,
      null,
    ])
    expect(toOutput(cut, 1, 1500)).toBeNull()
    expect(toSource(cut, 3001)).toBeNull()
    expect(toSource(cut, 1000)).toEqual({ source: 0, ms: 6000 })
  })
  it('leave a segment that was cut out with no time, where it would have been', () => {
    const cut = { outMs: 20_000, spans: follow(laid, 120_000).spans.filter((span) => span.fromMs < 20_000) }
    const shown = shownIn(cut, laid)
    expect(shown.slice(1).every(({ startMs, endMs }) => startMs === endMs)).toBe(true)
  })
})
