import { describe, expect, it } from 'vitest'
import { expand } from '../expand/expand'
import { circuit, score, station, talk } from '../testing'
import { boundariesOf } from './boundaries'
import { todoOf } from './todo'
import { handStitch, type Stitch } from './ties'

const { segments } = expand(
  score(
    circuit({
      rounds: 2,
      roundBreakMs: 15_000,
      lastRest: 'dropped',
      stations: [station('Jug lift'), station('Keel hold')],
    }),
  ),
)
const boundaries = boundariesOf(segments)
const sureAt = (at: number, shiftMs = 0): Stitch =>
  handStitch({ ...boundaries[at]!, footageMs: 4000 + (boundaries[at]?.plannedMs ?? 0) + shiftMs })
const unsureAt = (at: number, confidence: number, rivalMs?: number): Stitch => ({
  ...sureAt(at),
  ...{ origin: 'heard', confidence, evidence: ['beep'] },
  ...(rivalMs === undefined ? {} : { alternatives: [{ footageMs: rivalMs, confidence: 0.2 }] }),
})
const all = boundaries.map((_, at) => at)
const nameOf = (at: number): string => boundaries[at]?.segmentId ?? ''

describe('what is left to do', () => {
  it('is nothing where all is sure, or the plan holds between two ties', () => {
    expect(
      todoOf(
        segments,
        all.map((at) => sureAt(at)),
      ),
    ).toEqual([])
    expect(todoOf(segments, [sureAt(0), sureAt(boundaries.length - 1)])).toEqual([])
  })

  it('is one question for a stretch that ran longer than planned: the end of its break', () => {
    const ties = all.filter((at) => at < 2 || at > 4).map((at) => sureAt(at, at > 4 ? 3000 : 0))
    expect(todoOf(segments, ties)).toEqual([
      { segmentId: nameOf(4), edge: 'start', why: 'unheard', harmMs: 9000, changes: 3 },
    ])
  })

  it('has first what harms most', () => {
    const ties = [
      ...all.filter((at) => ![1, 3, 5].includes(at)).map((at) => sureAt(at)),
      ...[unsureAt(1, 0.8, 4000 + 20_000 + 10_000), unsureAt(3, 0.6, 4000 + 50_000 + 300), unsureAt(5, 0.5)],
    ]
    const found = todoOf(segments, ties)
    expect(found.map(({ segmentId, why }) => `${segmentId} ${why}`)).toEqual([
      `${nameOf(1)} unsure`,
      `${nameOf(5)} unsure`,
    ])
    expect(found[0]?.harmMs).toBeCloseTo(2000)
  })

  it('asks where nothing was heard at all, and across talk that nobody timed', () => {
    expect(todoOf(segments, [])).toMatchObject([
      { why: 'unheard', changes: boundaries.filter(({ audible }) => audible).length },
    ])
    const talked = expand(score(talk('welcome', 30_000), circuit({ rounds: 1 }), talk('bye', 20_000))).segments
    const [first, second] = boundariesOf(talked)
    const begins = handStitch({ ...first!, footageMs: 0 })
    expect(todoOf(talked, [begins]).length).toBe(1)
    expect(todoOf(talked, [begins, handStitch({ ...second!, footageMs: 12_000 })])[0]?.changes).toBeGreaterThan(1)
  })
})
