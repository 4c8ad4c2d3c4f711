import { describe, expect, it } from 'vitest'
import { readShorthand } from '../shorthand/read'
import { scoreSchema, type Score } from './score'
import { lengthOf, shifted, versionsOf } from './versions'

const plan = (text: string): Score => readShorthand(text).score
// 4 x (3 x (40 + 20)) with the last rest: 12 min.
const TWELVE = 'circuit Main: 4 rounds, 40 on, 20 off, last rest kept\n  Squat; Crunch; Plank\n'

describe('another length', () => {
  it('comes by rounds, by rests and by work, nearest first, with what changes', () => {
    const found = versionsOf(plan(TWELVE), 9 * 60_000)
    expect(found.map(({ way, totalMs }) => [way, totalMs])).toEqual([
      ['rounds', 540_000],
      ['rests', 540_000],
      ['works', 540_000],
    ])
    expect(found.map(({ changes }) => changes)).toEqual([
      [{ section: 'Main', field: 'rounds', from: 4, to: 3 }],
      [{ section: 'Main', field: 'restMs', from: 20_000, to: 5000 }],
      [{ section: 'Main', field: 'workMs', from: 40_000, to: 25_000 }],
    ])
    for (const { score, totalMs } of found) {
      expect(scoreSchema.safeParse(score).error).toBeUndefined()
      expect(lengthOf(score)).toBe(totalMs)
    }
  })
  it('is not offered where a way leads no nearer', () => {
    expect(versionsOf(plan('talk Hello: about 60\n'), 30_000)).toEqual([])
    expect(versionsOf(plan(TWELVE), 12 * 60_000)).toEqual([])
  })
  it('is of the workout where the promise is', () => {
    const text = `score: promise of workout\nwarm-up Warm-up: 60 on\n  Heel digs; Hip circles\n${TWELVE}`
    expect(lengthOf(plan(text))).toBe(720_000)
    expect(versionsOf(plan(text), 9 * 60_000)[0]).toMatchObject({ way: 'rounds', totalMs: 540_000 })
  })
})

describe('all rests by five seconds', () => {
  it('changes every rest and break, and those of single moves; none falls below five seconds or comes from nothing', () => {
    const text =
      'circuit Main: 2 rounds, 30 on, 15 off, 60 between\n  Squat (25 off); Crunch\nbreak Pause: long 30\nstraight On: 30 on\n  Plank\n'
    const [main, pause, on] = shifted(plan(text), -5000, 'rests').sections
    expect(main).toMatchObject({
      restMs: 10_000,
      roundBreakMs: 55_000,
      stations: [{ restMs: 20_000 }, { restMs: null }],
    })
    expect(pause).toMatchObject({ durationMs: 25_000 })
    expect(on).toMatchObject({ gapMs: 0 })
    expect(shifted(plan(text), -100_000, 'rests').sections[0]).toMatchObject({ restMs: 5000, roundBreakMs: 5000 })
  })
})
