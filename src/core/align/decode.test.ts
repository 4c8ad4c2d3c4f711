import { describe, expect, it } from 'vitest'
import { byTime, type EvidenceOf } from '../evidence'
import { expand } from '../expand/expand'
import { readShorthand } from '../shorthand/read'
import { boundariesOf } from './boundaries'
import { decode } from './decode'
import { handStitch } from './ties'

const beep = (atMs: number): EvidenceOf<'beep'> => ({
  ...{ kind: 'beep', atMs, spreadMs: 3, hz: 2000, durationMs: 400, strength: 0.9 },
})
const { segments } = expand(readShorthand('circuit Main: 6 rounds, 40 on, 20 off\n  Jug lift; Keel hold\n').score)
const boundaries = boundariesOf(segments)
/** The changes but for the first two and the last two; the session began after 20 s. */
const heard = boundaries.slice(2, -2).map(({ plannedMs }) => beep(plannedMs + 20_000))
const FOOTAGE_MS = 900_000

describe('where boundaries lie', () => {
  it('is shared out among all places that fit, and never to more than one whole', () => {
    const { posteriors } = decode(segments, { evidence: heard, footageMs: FOOTAGE_MS })
    for (const { instants } of posteriors) {
      expect(instants.reduce((sum, { mass }) => sum + mass, 0)).toBeLessThanOrEqual(1 + 1e-6)
      expect(instants[0]?.mass ?? 0).toBeLessThan(0.9)
    }
    // A step earlier or later stands among the rivals.
    const [, , third] = posteriors
    expect(third?.instants.length).toBeGreaterThan(1)
  })
  it('is sure all through once a hand has tied the first and the last of them', () => {
    const ends = [2, boundaries.length - 3].flatMap((at) => boundaries[at] ?? [])
    const hands = ends.map((one) => handStitch({ ...one, footageMs: one.plannedMs + 20_000 }))
    const { posteriors } = decode(segments, { evidence: heard, footageMs: FOOTAGE_MS }, hands)
    const between = posteriors.slice(2, -2)
    between.forEach(({ boundary, instants, evidence }, index) => {
      expect(Math.abs((instants[0]?.footageMs ?? 0) - boundary.plannedMs - 20_000)).toBeLessThan(100)
      expect(instants[0]?.mass).toBeGreaterThan(0.9)
      expect(evidence).toEqual([index === 0 || index === between.length - 1 ? 'hand' : 'beep'])
    })
  })
  it('follows a hand against what was heard', () => {
    const hand = handStitch({ segmentId: boundaries[6]?.segmentId ?? '', edge: 'start', footageMs: 350_000 })
    const { posteriors } = decode(segments, { evidence: heard, footageMs: FOOTAGE_MS }, [hand])
    expect(posteriors[6]?.instants[0]).toMatchObject({ footageMs: 350_000 })
    for (const [at, { instants }] of posteriors.entries())
      for (const { footageMs } of instants) expect(at < 6 ? footageMs <= 350_000 : footageMs >= 350_000).toBe(true)
  })
  it('goes on where two changes are tied to one instant, or a hand contradicts all', () => {
    const at = (index: number, footageMs: number) =>
      handStitch({ segmentId: boundaries[index]?.segmentId ?? '', edge: 'start', footageMs })
    for (const hands of [
      [at(4, 140_000), at(5, 140_000), at(6, 140_400)],
      [at(1, 5000), at(20, 9000)],
    ]) {
      const { posteriors, likeness } = decode(segments, { evidence: heard, footageMs: FOOTAGE_MS }, hands)
      expect(posteriors).toHaveLength(boundaries.length)
      expect(likeness).toBeGreaterThanOrEqual(0)
    }
  })
  it('follows from hands alone where nothing was heard, and nothing else is called heard', () => {
    const hand = handStitch({ segmentId: boundaries[0]?.segmentId ?? '', edge: 'start', footageMs: 5000 })
    const { posteriors, likeness } = decode(segments, { evidence: [], footageMs: FOOTAGE_MS }, [hand])
    expect(likeness).toBe(0)
    expect(posteriors.slice(1).every(({ evidence }) => evidence.length === 0)).toBe(true)
  })
  it('is heard by an overtone where music has the pitch itself', () => {
    const music = Array.from({ length: 240 }, (_, at) => ({
      ...beep((at * 7919 * 97) % 880_000),
      hz: 700 + 130 * (at % 8),
    }))
    const timer = boundaries.map(({ plannedMs }, at) => ({
      ...beep(plannedMs + 20_000),
      hz: at % 5 === 1 || at % 5 === 3 ? 4000 : 2000,
    }))
    const { posteriors } = decode(segments, { evidence: [...music, ...timer].sort(byTime), footageMs: FOOTAGE_MS })
    for (const { boundary, instants, evidence } of posteriors) {
      expect(Math.abs((instants[0]?.footageMs ?? 0) - boundary.plannedMs - 20_000)).toBeLessThan(100)
      expect(instants[0]?.mass).toBeGreaterThan(0.9)
      expect(evidence).toEqual(['beep'])
    }
  })
  it('is nowhere, for tones of another session', () => {
    const other = expand(
      readShorthand('table Main: 35/15 then 25/35 then 55/10 then 30/25 rounds\n  Squat; Lunge; Crawl\n').score,
    )
    const tones = boundariesOf(other.segments).map(({ plannedMs }) => beep(plannedMs + 9000))
    const { posteriors, likeness } = decode(segments, { evidence: tones, footageMs: FOOTAGE_MS })
    expect(likeness).toBeLessThan(0.5)
    expect(posteriors.flatMap(({ instants }) => instants).filter(({ mass }) => mass >= 0.5)).toEqual([])
  })
  it('is where a call was heard, not where an even clock would have it', () => {
    const callsOff = [0, 200, -150, 240, -220, 180]
    const called = boundaries.map(({ plannedMs }, at) => ({
      atMs: plannedMs + 20_000 + (callsOff[at % callsOff.length] ?? 0),
      begins: at % 2 === 0 ? ('work' as const) : ('rest' as const),
    }))
    const words = called.map(({ atMs, begins }): EvidenceOf<'word'> => ({
      ...{ kind: 'word', atMs, spreadMs: 60, strength: 0.9, word: begins, text: begins },
    }))
    const { posteriors } = decode(segments, { evidence: words, footageMs: FOOTAGE_MS })
    for (const [at, { instants, evidence }] of posteriors.entries())
      if (evidence.includes('word')) expect(instants[0]?.footageMs).toBe(called[at]?.atMs)
    expect(posteriors.filter(({ evidence }) => evidence.includes('word')).length).toBeGreaterThan(10)
  })
})
