import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCut, RATES } from './anyCut'
import { asPlanned } from '../cut/cut'
import { SpanList } from '../cut/spans'
import { expand } from '../expand/expand'
import { overlayChanges } from '../look/overlay'
import { circuit, score, station } from '../testing'
import { chunksOf, LEAST_CHUNK_MS, MOST_CHUNK_MS, recipeOf, rowsOf, together } from './plan'
import { piecesOf, sourceOf, type Piece } from './runs'
import { sourceMsIn } from '../cut/cut'
import { frameMsOf } from '../units'

const planned = (labels: readonly string[]) =>
  asPlanned(
    expand(score(circuit({ rounds: 2, workMs: 20_000, restMs: 10_000, stations: labels.map((one) => station(one)) })))
      .segments,
  )

describe('chunks', () => {
  it('lie end to end, each at its own instant of its source, and are from 4 to 12 s long where a source is', () => {
    fc.assert(
      fc.property(anyCut, fc.constantFrom(...RATES), (cut, rate) => {
        const pieces = piecesOf(cut, rate)
        const frameMs = frameMsOf(rate)
        let next = 0
        for (const chunk of chunksOf(pieces, planned(['Jug lift', 'Keel hold']), rate)) {
          expect(chunk.first).toBe(next)
          next += chunk.frames
          const piece = pieces.findLast(({ first }) => first <= chunk.first)!
          expect(chunk.fromMs).toBeCloseTo(
            sourceMsIn(
              { ...sourceOf(piece), outMs: piece.first * frameMs, rate: piece.run.rate },
              chunk.first * frameMs,
            ),
            6,
          )
          expect(chunk.lengthMs).toBeLessThanOrEqual(MOST_CHUNK_MS + 1e-6)
          expect(chunk.lengthMs).toBeGreaterThanOrEqual(Math.min(LEAST_CHUNK_MS, piece.lengthMs) - 1e-6)
        }
        expect(next).toBe(pieces.reduce((total, { frames }) => total + frames, 0))
      }),
    )
  })
  it('are rendered in rows that go on without a gap, and are together what they are apart', () => {
    fc.assert(
      fc.property(anyCut, fc.integer({ min: 1, max: 5 }), fc.func(fc.boolean()), (cut, most, isMissing) => {
        const chunks = chunksOf(piecesOf(cut, RATES[0]!), [], RATES[0]!)
        const missing = chunks.filter(({ first }) => isMissing(first))
        const rows = rowsOf(missing, most)
        expect(rows.flat()).toEqual(missing)
        for (const row of rows) {
          expect(row.length).toBeLessThanOrEqual(most)
          const whole = together(row)
          expect(whole.frames).toBe(row.reduce((total, { frames }) => total + frames, 0))
          expect(new Set(row.map(({ run }) => run)).size).toBe(1)
          row.reduce((before, chunk) => {
            expect(chunk.first).toBe(before.first + before.frames)
            return chunk
          })
        }
      }),
    )
  })
})

describe.each(RATES)('what a chunk shows at $num/$den pictures a second', (rate) => {
  const recipes = (labels: readonly string[], source = 'film'): { chunk: Piece; recipe: string }[] => {
    const shown = planned(labels)
    const list = new SpanList()
    list.show({ fromMs: 0, toMs: shown.at(-1)!.endMs, segmentId: null, why: 'filmed' })
    const changes = overlayChanges(shown)
    return chunksOf(piecesOf(list.cut, rate), shown, rate).map((chunk) => ({
      chunk,
      recipe: recipeOf(chunk, { rate, changes, source, aims: [] }),
    }))
  }
  const before = recipes(['Jug lift', 'Keel hold', 'Tiller twist'])
  const unlike = (after: ReturnType<typeof recipes>): number[] =>
    after.flatMap(({ chunk, recipe }, at) =>
      recipe === before[at]!.recipe ? [] : [(chunk.first * frameMsOf(rate)) / 1000],
    )

  it('changes with a name only where the name is seen: in its work, and in the rest that announces it', () => {
    expect(unlike(recipes(['Jug lift', 'Keel hold', 'Tiller twist']))).toEqual([])
    const changed = unlike(recipes(['Jug lift', 'Rope pull', 'Tiller twist']))
    const shown = planned(['Jug lift', 'Rope pull', 'Tiller twist'])
    const seen = shown.flatMap(({ segment, startMs }, at) =>
      [segment, shown[at + 1]?.segment].some((one) => one?.label === 'Rope pull') ? [startMs / 1000] : [],
    )
    expect(changed.length).toBeGreaterThan(0)
    expect(changed.length).toBeLessThan(before.length)
    const end = (startS: number): number => shown.find(({ startMs }) => startMs === startS * 1000)!.endMs / 1000
    const late = 1e-6
    for (const fromS of changed)
      expect(seen.some((startS) => fromS + late >= startS && fromS + late < end(startS))).toBe(true)
  })
  it('changes everywhere with another film', () => {
    expect(unlike(recipes(['Jug lift', 'Keel hold', 'Tiller twist'], 'another'))).toHaveLength(before.length)
  })
})
