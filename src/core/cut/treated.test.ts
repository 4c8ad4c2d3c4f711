import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { SpanList } from './spans'
import { treated, TREATMENTS } from './treated'

function plain() {
  const list = new SpanList()
  list.show({ fromMs: 0, toMs: 10_000, segmentId: 'talk', why: 'filmed' })
  list.show({ fromMs: 10_000, toMs: 30_000, segmentId: 'work', why: 'filmed' })
  list.card(5000, 'card')
  return list.cut
}
const shown = (...stretches: Parameters<typeof treated>[1]) =>
  treated(plain(), stretches).spans.map(({ source, fromMs, toMs, outMs, segmentId, why }) => [
    ...[source, fromMs, toMs, outMs],
    ...[segmentId, why],
  ])

describe('a stretch', () => {
  it('is cut out, over the border of two segments, and what follows comes earlier', () => {
    expect(shown({ fromMs: 8000, toMs: 12_000, as: 'cut' })).toEqual([
      [0, 0, 8000, 0, 'talk', 'filmed'],
      [0, 12_000, 30_000, 8000, 'work', 'filmed'],
      ['card', 0, 5000, 26_000, 'card', 'card'],
    ])
  })
  it('is covered by a card that is as long', () => {
    expect(shown({ fromMs: 0, toMs: 10_000, as: 'covered' })[0]).toEqual(['card', 0, 10_000, 0, 'talk', 'card'])
    expect(treated(plain(), [{ fromMs: 0, toMs: 10_000, as: 'covered' }]).outMs).toBe(plain().outMs)
  })
  it('keeps its beginning and its end where it is shortened; what is short already stays', () => {
    expect(shown({ fromMs: 0, toMs: 10_000, as: 'shortened' }).slice(0, 2)).toEqual([
      [0, 0, 1500, 0, 'talk', 'shortened'],
      [0, 8500, 10_000, 1500, 'talk', 'shortened'],
    ])
    expect(treated(plain(), [{ fromMs: 20_000, toMs: 22_000, as: 'shortened' }]).outMs).toBe(plain().outMs)
  })
  it('is treated as it was told last', () => {
    const cut = { fromMs: 12_000, toMs: 20_000, as: 'cut' } as const
    expect(shown(cut, { ...cut, as: 'covered' })).toContainEqual(['card', 0, 8000, 12_000, 'work', 'card'])
  })
})

it('a treated cut has no gaps, and shows nothing that was cut out', () => {
  const stretch = fc
    .tuple(fc.nat(30_000), fc.nat(9000), fc.constantFrom(...TREATMENTS))
    .map(([fromMs, lengthMs, as]) => ({ fromMs, toMs: fromMs + lengthMs, as }))
  fc.assert(
    fc.property(fc.array(stretch, { maxLength: 5 }), (stretches) => {
      const cut = treated(plain(), stretches)
      let outMs = 0
      for (const span of cut.spans) {
        expect(span.outMs).toBeCloseTo(outMs, 6)
        expect(span.lengthMs).toBeGreaterThan(0)
        outMs += span.lengthMs
      }
      expect(cut.outMs).toBeCloseTo(outMs, 6)
      const gone = stretches.at(-1)
      if (gone?.as === 'cut')
        for (const { source, fromMs, toMs } of cut.spans)
          if (source === 0) expect(fromMs >= gone.toMs || toMs <= gone.fromMs || gone.toMs === gone.fromMs).toBe(true)
    }),
  )
})
