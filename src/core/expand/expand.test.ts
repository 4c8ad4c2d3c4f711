import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { circuit, score, station, talk } from '../testing'
import { newSection } from '../score/formats'
import { readShorthand } from '../shorthand/read'
import { expand, totalsOf } from './expand'

const kinds = (...args: Parameters<typeof score>): string =>
  expand(score(...args))
    .segments.map((one) => one.kind)
    .join(' ')

describe('a circuit', () => {
  it('is four minutes for 8 x (20 + 10) with the last rest kept, and 3:50 without it', () => {
    expect(expand(score(circuit({ rounds: 8 }))).totalMs).toBe(240_000)
    expect(expand(score(circuit({ rounds: 8, lastRest: 'dropped' }))).totalMs).toBe(230_000)
  })
  it('puts the break in place of the rest between rounds, unless every rest is kept', () => {
    const two = [station('Jug lift'), station('Keel hold')]
    expect(kinds(circuit({ rounds: 2, roundBreakMs: 60_000, lastRest: 'replaced', stations: two }))).toBe(
      'work rest work break work rest work',
    )
    expect(kinds(circuit({ rounds: 2, roundBreakMs: 60_000, lastRest: 'dropped', stations: two }))).toBe(
      'work rest work break work rest work',
    )
    expect(kinds(circuit({ rounds: 2, roundBreakMs: 60_000, lastRest: 'kept', stations: two }))).toBe(
      'work rest work rest break work rest work rest',
    )
  })
  it('gives way to a break section that follows, and to nothing, when its last rest is replaced', () => {
    const pause = { ...newSection('break', 'sip', 'Sip'), durationMs: 90_000 }
    expect(kinds(circuit({ lastRest: 'replaced' }), pause)).toBe('work break')
    expect(kinds(circuit({ lastRest: 'kept' }), pause)).toBe('work rest break')
    expect(kinds(circuit({ lastRest: 'replaced' }))).toBe('work')
    expect(kinds(circuit({ lastRest: 'replaced' }), talk('bye', 5000))).toBe('work rest talk')
  })
  it('alternates sides by round, and halves within one interval', () => {
    const { segments } = expand(
      score(
        circuit({
          rounds: 3,
          restMs: 0,
          stations: [
            station('Jug lift', { sideRule: 'alternate' }),
            station('Tiller twist', { sideRule: 'halves' }),
            station('Keel hold'),
          ],
        }),
      ),
    )
    expect(segments.map((one) => one.side)).toEqual([
      'left',
      'switch',
      null,
      'right',
      'switch',
      null,
      'left',
      'switch',
      null,
    ])
  })
  it('has ids that are paths, with counters and a lead-in', () => {
    const { segments } = expand(
      score(circuit({ rounds: 2, leadInMs: 5000, roundBreakMs: 15_000, lastRest: 'dropped' })),
    )
    expect(segments.map((one) => one.id)).toEqual(['main/lead', 'main/r1/s1/work', 'main/r1/break', 'main/r2/s1/work'])
    expect(segments[3]).toMatchObject({
      row: 4,
      round: 2,
      rounds: 2,
      station: 1,
      stations: 1,
      startMs: 40_000,
      durationMs: 20_000,
      section: 'Main',
    })
  })
  it('lets a station have lengths of its own', () => {
    const { segments } = expand(
      score(circuit({ stations: [station('Jug lift', { workMs: 45_000, restMs: 5000 }), station('Keel hold')] })),
    )
    expect(segments.map((one) => one.durationMs)).toEqual([45_000, 5000, 20_000, 10_000])
  })
  it('without stations is nothing at all', () => {
    expect(expand(score(circuit({ stations: [], leadInMs: 10_000 }))).segments).toEqual([])
  })
})

describe('talk', () => {
  it('counts with its guess, marked as one, and with nothing where there is none', () => {
    expect(expand(score(talk('welcome', 12_000)))).toMatchObject({ totalMs: 12_000, estimated: true })
    expect(expand(score(talk('welcome', null)))).toMatchObject({ totalMs: 0, estimated: true })
  })
})

describe('expand', () => {
  it('has no gaps, unique ids, and totals that are the sum of the parts', () => {
    const anyCircuit = fc.record({
      rounds: fc.integer({ min: 1, max: 6 }),
      count: fc.integer({ min: 0, max: 5 }),
      workMs: fc.integer({ min: 0, max: 90_000 }),
      restMs: fc.integer({ min: 0, max: 60_000 }),
      roundBreakMs: fc.integer({ min: 0, max: 60_000 }),
      lastRest: fc.constantFrom('kept' as const, 'dropped' as const, 'replaced' as const),
      leadInMs: fc.integer({ min: 0, max: 10_000 }),
    })
    fc.assert(
      fc.property(fc.array(anyCircuit, { maxLength: 4 }), (parts) => {
        const sections = parts.map(({ count, ...rest }, index) =>
          circuit({
            ...rest,
            key: `c${index}`,
            stations: Array.from({ length: count }, (_, at) => station(`Move ${at}`)),
          }),
        )
        const { segments, totalMs } = expand(score(...sections))
        let at = 0
        for (const segment of segments) {
          expect(segment.startMs).toBe(at)
          at += segment.durationMs
        }
        expect(totalMs).toBe(at)
        expect(new Set(segments.map((one) => one.id)).size).toBe(segments.length)
        expect(segments.map((one) => one.row)).toEqual(segments.map((_, index) => index + 1))
        expect(totalsOf(segments).totalMs).toBe(totalMs)
      }),
    )
  })
  it('refuses more than 50,000 intervals and more than a day, in words', () => {
    const many = Array.from({ length: 200 }, (_, index) => station(`Move ${index}`))
    expect(() => expand(score(circuit({ rounds: 500, stations: many })))).toThrow(/50,000/)
    expect(() => expand(score(circuit({ rounds: 500, workMs: 600_000 })))).toThrow(/24 hours/)
  })
})

describe('what a round counts', () => {
  const rounds = (reading: 'pass' | 'interval' | 'thereAndBack', text: string): string => {
    const { score: plan } = readShorthand(text)
    return expand({ ...plan, readings: { ...plan.readings, round: reading } })
      .segments.filter((one) => one.kind === 'work')
      .map((one) => `${one.round}/${one.rounds}`)
      .join(' ')
  }
  it('is a pass, an interval, or a climb with its descent, as the creator reads it', () => {
    const two = 'circuit Main: 2 rounds, 30 on, 10 off\n  Squat; Lunge\n'
    expect(rounds('pass', two)).toBe('1/2 1/2 2/2 2/2')
    expect(rounds('interval', two)).toBe('1/4 2/4 3/4 4/4')
    expect(rounds('thereAndBack', two)).toBe('1/2 1/2 2/2 2/2')
    expect(rounds('thereAndBack', 'pyramid Main: 2:00 climb, 2 reps, 2 more each, 30 off\n  Squat; Lunge\n')).toBe(
      '1/2 1/2 2/2 2/2',
    )
    expect(rounds('thereAndBack', 'slot Main: 2 rungs, 20 from, 10 step, shape up and down\n  Squat\n')).toBe(
      '1/1 1/1 1/1',
    )
  })
})
