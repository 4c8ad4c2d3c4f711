import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Evidence } from '../evidence'
import { expand } from '../expand/expand'
import { circuit, score, station, talk } from '../testing'
import type { Ms } from '../units'
import { fitted, FITS, type Filmed } from './fit'
import type { LaidSegment } from './lane'
import { inFiles } from './spans'

const stations = [station('Jug lift', { sideRule: 'alternate' }), station('Keel hold', { sideRule: 'none' })]
const { segments } = expand(
  score(talk('welcome', 10_000), circuit({ rounds: 2, roundBreakMs: 15_000, lastRest: 'dropped', stations })),
)

/** The session as planned, but for segments that took as long as told; nothing lies before it, `afterMs` after it. */
function filmedAs(tookMs: Record<string, Ms>, heard: Evidence[] = [], afterMs = 0): Filmed {
  let atMs = 0
  const laid = segments.map((segment): LaidSegment => {
    const fromMs = atMs
    atMs += tookMs[segment.id] ?? segment.durationMs
    return { segment, fromMs, toMs: atMs, fromTied: true, toTied: true }
  })
  return { laid, footageMs: atMs + afterMs, heard, cameras: [], dead: [], edits: [] }
}

const said = (fromMs: Ms, toMs: Ms): Evidence => ({
  ...{ kind: 'speech', atMs: fromMs, durationMs: toMs - fromMs, spreadMs: 0, strength: 1 },
})

const idOf = (part: string): string => segments.find(({ id }) => id.includes(part))!.id
const LAST_WORK = segments.filter(({ kind }) => kind === 'work').at(-1)!
const BREAK = segments.find(({ kind }) => kind === 'break')!.id
const firstOf = (kind: string): string => segments.find((one) => one.kind === kind)!.id

describe('a cut to the score', () => {
  it('makes each stretch as long as planned, wherever it ran over', () => {
    const filmed = filmedAs({ [BREAK]: 58_000, [firstOf('work')]: 23_000, [firstOf('rest')]: 9_000 }, [], 4000)
    const { cut, shown, changes } = fitted(filmed, { fit: 'score' })
    for (const { segment, startMs, endMs } of shown)
      expect([segment.id, endMs - startMs]).toEqual([segment.id, segment.durationMs])
    expect(cut.outMs).toBe(segments.at(-1)!.startMs + segments.at(-1)!.durationMs)
    expect(changes.map(({ key, kind, byMs }) => [key, kind, byMs])).toEqual([
      [firstOf('work'), 'shortened', -3000],
      [firstOf('rest'), 'lengthened', 1000],
      [BREAK, 'shortened', -43_000],
      ['after', 'outside', -4000],
    ])
  })
  it('leaves what is hardly off as it was filmed, and makes up for it before it adds up', () => {
    const over = Object.fromEntries(segments.map(({ id, durationMs }) => [id, durationMs + 200]))
    const { shown, changes } = fitted(filmedAs(over), { fit: 'score' })
    expect(changes.length).toBeLessThan(segments.length / 2)
    const offMs = shown.map(
      ({ segment, startMs }) => startMs - segment.startMs - shown[1]!.startMs + segments[1]!.startMs,
    )
    expect(Math.max(...offMs.slice(1).map(Math.abs))).toBeLessThanOrEqual(500)
  })
  it('takes a change back alone', () => {
    const filmed = filmedAs({ [BREAK]: 58_000, [firstOf('work')]: 23_000 })
    const { cut, changes } = fitted(filmed, { fit: 'score', undone: [BREAK] })
    expect(changes.map(({ key }) => key)).toEqual([firstOf('work')])
    expect(cut.outMs).toBe(LAST_WORK.startMs + LAST_WORK.durationMs + 43_000)
  })
  it('leaves out what was not filmed, and says so', () => {
    const { shown, changes } = fitted(filmedAs({ [LAST_WORK.id]: 0 }), { fit: 'score' })
    expect(changes).toMatchObject([{ key: LAST_WORK.id, kind: 'left-out' }])
    expect(shown.at(-1)).toMatchObject({ startMs: LAST_WORK.startMs, endMs: LAST_WORK.startMs })
  })
  it('takes long silences out of talk where that is wished, and nothing else', () => {
    const words = [said(500, 2000), said(4900, 5200), said(9000, 9800)]
    const filmed = filmedAs({}, words)
    const { cut, changes } = fitted(filmed, { fit: 'score', tightens: true })
    expect(changes).toMatchObject([{ key: 'welcome/talk', kind: 'tightened', byMs: -2800 }])
    expect(cut.spans.slice(0, 2)).toMatchObject([{ toMs: 5700 }, { fromMs: 8500, toMs: 10_000 }])
    for (const wishes of [{ tightens: false }, { tightens: true, undone: ['welcome/talk'] }])
      expect(fitted(filmed, { fit: 'score', ...wishes }).changes).toEqual([])
    expect(fitted(filmedAs({}), { fit: 'score', tightens: true }).changes).toEqual([])
  })
  it('slows the still stretch of a rest that was too short, holds its last picture, or shows a card', () => {
    const rest = firstOf('rest')
    const cutWith = (tookMs: Ms, heard: Evidence[]) => {
      const { cut, shown } = fitted(filmedAs({ [rest]: tookMs }, heard), { fit: 'score' })
      expect(shown.find(({ segment }) => segment.id === rest)).toMatchObject({ endMs: 40_000, startMs: 30_000 })
      return cut.spans.filter(({ segmentId }) => segmentId === rest).map(({ why, rate }) => [why, rate])
    }
    // The first rest begins at 30 s in the footage.
    const words = [said(5000, 9000), said(30_000, 31_000), said(35_000, 35_500)]
    expect(cutWith(7000, words)).toEqual([
      ['filmed', 1],
      ['slowed', 4 / 7],
      ['filmed', 1],
    ])
    expect(cutWith(9000, words)).toEqual([
      ['filmed', 1],
      ['held', 0],
    ])
    const leap: Evidence = { kind: 'motion', atMs: 33_000, spreadMs: 0, strength: 1, begins: true }
    for (const heard of [[], [...words, leap], [...words, said(31_500, 34_500)]])
      expect(cutWith(7000, heard)).toEqual([
        ['filmed', 1],
        ['card', 1],
      ])
    // Slower than half, it would be seen.
    expect(cutWith(5500, words)).toEqual([
      ['filmed', 1],
      ['card', 1],
    ])
  })
  it('spares words where that can be helped', () => {
    const filmed = filmedAs({ [BREAK]: 58_000 })
    const at = filmed.laid.find(({ segment }) => segment.id === BREAK)!.fromMs
    const words = [said(at + 500, at + 4200), said(at + 50_000, at + 51_000), said(at + 54_500, at + 57_900)]
    const { cut } = fitted({ ...filmed, heard: words }, { fit: 'score' })
    const joints = cut.spans
      .filter(({ segmentId }) => segmentId === BREAK)
      .flatMap(({ fromMs, toMs }) => [fromMs, toMs])
    for (const { atMs, durationMs } of words as { atMs: Ms; durationMs: Ms }[])
      expect(joints.filter((ms) => ms > atMs && ms < atMs + durationMs)).toEqual([])
  })
})

describe('a cut that is filled', () => {
  it('shows a round that was filmed in place of one that was not, mirrored for the other side', () => {
    const second = segments.filter(({ id, kind }) => id.includes('r2') && kind === 'work')
    const unfilmed = Object.fromEntries(segments.filter(({ id }) => id.includes('r2')).map(({ id }) => [id, 0]))
    const { cut, reused, shown } = fitted(filmedAs(unfilmed), { fit: 'fill' })
    expect(cut.outMs).toBe(LAST_WORK.startMs + LAST_WORK.durationMs)
    expect(cut.spans.filter(({ why }) => why === 'reused')).toMatchObject([
      { segmentId: second[0]!.id, mirrored: true, fromMs: segments.find(({ label }) => label === 'Jug lift')!.startMs },
      { segmentId: idOf('r2/s1/rest'), mirrored: false },
      { segmentId: second[1]!.id, mirrored: false },
    ])
    expect(reused).toBeCloseTo(50_000 / cut.outMs, 6)
    for (const { segment, startMs, endMs } of shown) expect(endMs - startMs).toBe(segment.durationMs)
  })
  it('is a card with the timer where nothing may stand for it', () => {
    const unfilmed = { [idOf('r1/s1')]: 0, [idOf('r2/s1')]: 0 }
    const { cut, changes } = fitted(filmedAs(unfilmed), { fit: 'fill' })
    expect(changes.map(({ kind }) => kind)).toEqual(['carded', 'carded'])
    expect(cut.spans.filter(({ source }) => source === 'card').map(({ segmentId }) => segmentId)).toEqual(
      Object.keys(unfilmed),
    )
  })
  it('holds the last picture of what it shows, mirrored as that is, where it is a little short', () => {
    const { cut } = fitted(filmedAs({ [idOf('r1/s1')]: 19_200, [idOf('r2/s1')]: 0 }), { fit: 'fill' })
    const [again, held] = cut.spans.filter(({ segmentId }) => segmentId === idOf('r2/s1'))
    expect(again).toMatchObject({ mirrored: true, toMs: 29_200, why: 'reused' })
    expect(held).toMatchObject({ source: 'still', mirrored: true, fromMs: 29_199, lengthMs: 800 })
  })
  it('is no mirror where that is not wished', () => {
    const { changes } = fitted(filmedAs({ [idOf('r2/s1')]: 0 }), { fit: 'fill', mirrors: false })
    expect(changes).toMatchObject([{ kind: 'carded' }])
  })
})

describe('any fit of any session', () => {
  const any = fc
    .array(fc.oneof(fc.constant(0), fc.integer({ min: 1, max: 90_000 })), {
      minLength: segments.length,
      maxLength: segments.length,
    })
    .map((took) => filmedAs(Object.fromEntries(segments.map(({ id }, at) => [id, took[at]!])), [], 5000))
    .chain((filmed) =>
      // Pieces of it, one after the other, with gaps before some of them.
      fc
        .uniqueArray(fc.integer({ min: 0, max: filmed.footageMs }), { maxLength: 12 })
        .map((marks) => marks.sort((one, other) => one - other))
        .map((marks) => {
          let atMs = 0
          const edits = marks.flatMap((fromMs, at) => {
            const toMs = marks[at + 1]
            if (toMs === undefined || at % 3 === 2) return []
            atMs += at % 4 === 1 ? 700 : 0
            const edit = { fromMs, toMs, atMs, lengthMs: toMs - fromMs }
            atMs += edit.lengthMs
            return [edit]
          })
          return { ...filmed, edits }
        }),
    )
  it('lies end to end in output time, inside the footage, in files as in one', () => {
    fc.assert(
      fc.property(any, fc.constantFrom(...FITS), fc.integer({ min: 1, max: 300_000 }), (filmed, fit, borderMs) => {
        const { cut, shown } = fitted(filmed, { fit })
        const files = inFiles(cut, [borderMs, Math.max(1, filmed.footageMs - borderMs)])
        for (const { spans } of [cut, files]) {
          let atMs = 0
          for (const span of spans) {
            expect(span.outMs).toBe(atMs)
            expect(span.lengthMs).toBeGreaterThan(0)
            if (span.source !== 'still') expect(span.toMs - span.fromMs).toBe(span.lengthMs)
            atMs += span.lengthMs
          }
          expect(atMs).toBe(cut.outMs)
        }
        for (const { source, fromMs, toMs } of cut.spans)
          if (source === 0) expect([fromMs >= 0, toMs <= filmed.footageMs]).toEqual([true, true])
        let before = 0
        for (const { startMs, endMs } of shown) {
          expect(startMs).toBeGreaterThanOrEqual(before)
          before = Math.max(startMs, endMs)
        }
      }),
    )
  })
  it('is the plan in length, filled: every timed segment as long as planned, but for what is hardly off', () => {
    fc.assert(
      fc.property(any, (filmed) => {
        const { shown } = fitted(filmed, { fit: 'fill' })
        for (const { segment, startMs, endMs } of shown)
          if (segment.pace === 'fixed') expect(Math.abs(endMs - startMs - segment.durationMs)).toBeLessThanOrEqual(1000)
      }),
    )
  })
})
