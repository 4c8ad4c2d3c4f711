import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expand } from '../expand/expand'
import { around, circuit, score, station } from '../testing'
import { readShorthand } from '../shorthand/read'
import { changesForTempo, repsAtTempo, temposFor } from './beats'
import { castOf } from './cast'
import {
  descentMs,
  earnedRest,
  expectedReps,
  leftAfterBuyIn,
  repsInTime,
  rungReached,
  timeForReps,
  timesRound,
} from './reps'
import { SOLVABLE } from './formats'
import type { Score } from './score'
import { keepTotal, msToFill, solvePromise } from './solve'

describe('starting from the promise', () => {
  it.each([...SOLVABLE.keys()])(
    '%s: the nearest few come close to a quarter of an hour, best first, with true sums',
    (format) => {
      const solutions = solvePromise({ totalMs: 900_000, format, moves: 4 }, around({ follows: 'nothing' }))
      expect(solutions.length).toBeGreaterThan(2)
      for (const { section, totalMs, offMs } of solutions) {
        expect(expand(score(section)).totalMs).toBe(totalMs)
        expect(offMs).toBe(totalMs - 900_000)
      }
      // A round of four one-minute slots is four minutes, so that half a round is as near as these two come.
      expect(Math.abs(solutions[0]?.offMs ?? Infinity)).toBeLessThanOrEqual(
        format === 'slot' || format === 'minuteTime' ? 130_000 : 60_000,
      )
    },
  )
  it('keeps a total by changing another number', () => {
    // 3 rounds of 2 x (40 + 20) = 360 s. With 45 on, rest must be 15.
    const plan = score(
      circuit({ rounds: 3, workMs: 45_000, restMs: 20_000, stations: [station('Jug lift'), station('Keel hold')] }),
    )
    expect(keepTotal(plan, 'main', 'restMs', 360_000)).toEqual({ field: 'restMs', value: 15_000, totalMs: 360_000 })
    // 2 x (45 + 20) = 130 s a round; 360 s lie nearest to 3 rounds (390).
    expect(keepTotal(plan, 'main', 'rounds', 360_000)).toEqual({ field: 'rounds', value: 3, totalMs: 390_000 })
    expect(keepTotal(plan, 'main', 'restMs', 100_000)).toBeNull()
  })
  it('keeps a total by a break that was not there, in place of the rests that come back without one', () => {
    // 3 rounds of 2 x 40 with 20 between = 100 s each, and 2 breaks: 3 x 100 + 2 x 90 = 480 s.
    const plan = score(
      circuit({
        ...{ rounds: 3, workMs: 40_000, restMs: 20_000, roundBreakMs: 0, lastRest: 'dropped' },
        stations: [station('Jug lift'), station('Keel hold')],
      }),
    )
    expect(keepTotal(plan, 'main', 'roundBreakMs', 480_000)).toEqual({
      field: 'roundBreakMs',
      value: 90_000,
      totalMs: 480_000,
    })
  })
  it('keeps no total by what is no number', () => {
    const plan = score(circuit())
    expect(keepTotal(plan, 'main', 'name', 100_000)).toBeNull()
  })
})

describe('what is left to fill', () => {
  const promised = (promiseMs: number | null): Score => ({ ...score(circuit()), promiseMs })
  it('is what the plan has not used of its promise', () => expect(msToFill(promised(900_000), 600_000)).toBe(300_000))
  it('is all of it again where the plan has used it up, and never a minute out of nowhere', () => {
    expect(msToFill(promised(900_000), 900_000)).toBe(900_000)
    expect(msToFill(promised(900_000), 2_000_000)).toBe(900_000)
  })
  it('is a quarter of an hour where nothing is promised', () => expect(msToFill(promised(null), 0)).toBe(900_000))
})

describe('reps', () => {
  it('are worked out by hand', () => {
    expect([
      timeForReps(12, 3),
      repsInTime(40_000, 3),
      leftAfterBuyIn(60_000, 36),
      timesRound(360_000, 42_000),
    ]).toEqual([36_000, 13, 24_000, 8.5])
    // 2 + 4 + 6 + 8 = 20 reps of 3 s = 60 s; the fifth rung needs 30 s more.
    const climb = { startReps: 2, stepReps: 2, secondsPerRep: 3 }
    expect([
      rungReached(climb, 60_000),
      rungReached(climb, 89_999),
      rungReached(climb, 90_000),
      descentMs(climb, 4),
    ]).toEqual([4, 4, 5, 60_000])
    expect(rungReached({ ...climb, secondsPerRep: 0 }, 60_000)).toBe(0)
    const works = expand(
      readShorthand('circuit Main: 1 round, 40 on\n  Squat; Plank\nbuy-in B: 1 round, 1:00 on\n  12 Squat + Plank\n')
        .score,
    ).segments
    expect(works.map((one) => expectedReps(one, castOf([])))).toEqual([13, null, null])
    expect(works[2]?.note).toBe('About 0:24 for Plank')
  })
  it('of an every-minute set: add where more rest is left than wanted, take where less', () => {
    expect(earnedRest(60_000, 12, 3, 15_000)).toEqual({ restMs: 24_000, change: 3 })
    expect(earnedRest(60_000, 17, 3, 15_000)).toEqual({ restMs: 9000, change: -2 })
    expect(earnedRest(60_000, 15, 3, 15_000)).toEqual({ restMs: 15_000, change: 0 })
  })
})

describe('the beat planner', () => {
  it('finds the tempos at which 40 and 20 seconds are whole bars', () => {
    // 20 s hold 10 bars at 120: a bar of four is 2 s.
    const fits = temposFor([40_000, 20_000], { low: 110, high: 130 })
    expect(fits.map((fit) => fit.bpm)).toEqual([120])
    expect(fits[0]?.bars).toEqual([20, 10])
    expect(repsAtTempo(40_000, 120, 4)).toBe(20)
  })
  it('gives only tempos at which every length is whole bars', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 120 }), { minLength: 1, maxLength: 4 }),
        fc.constantFrom(3, 4),
        (seconds, beatsPerBar) => {
          const lengths = seconds.map((one) => one * 1000)
          for (const { bpm, bars } of temposFor(lengths, { beatsPerBar })) {
            expect(bpm >= 79.999 && bpm <= 180.001).toBe(true)
            lengths.forEach((ms, index) =>
              expect((ms * bpm) / (60_000 * beatsPerBar)).toBeCloseTo(bars[index] ?? -1, 6),
            )
          }
        },
      ),
    )
  })
  it('says what to change for a wanted tempo', () => {
    // At 128 a bar of four is 1.875 s: 21 bars are 39.375 s, 11 bars 20.625 s.
    expect(changesForTempo([40_000, 20_000], 128)).toEqual([
      { ms: 40_000, fittedMs: 39_375, bars: 21 },
      { ms: 20_000, fittedMs: 20_625, bars: 11 },
    ])
  })
})
