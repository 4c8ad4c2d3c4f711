import fc from 'fast-check'
import Timecode from 'smpte-timecode'
import { describe, expect, it } from 'vitest'
import type { Rate } from '../units'
import { frameAt, frameOf, isDropFrame, msAt, timecodeOf } from './timecode'

const RATES: readonly Rate[] = [
  { num: 24_000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30_000, den: 1001 },
  { num: 30, den: 1 },
  { num: 50, den: 1 },
  { num: 60_000, den: 1001 },
]
const NTSC: Rate = { num: 30_000, den: 1001 }

describe('timecode', () => {
  it('leaves two numbers out at each minute that is not a tenth', () => {
    expect(timecodeOf(1799, NTSC)).toBe('00:00:59;29')
    expect(timecodeOf(1800, NTSC)).toBe('00:01:00;02')
    expect(timecodeOf(17_981, NTSC)).toBe('00:09:59;29')
    expect(timecodeOf(17_982, NTSC)).toBe('00:10:00;00')
    expect(frameOf('00:01:00;00', NTSC)).toBeNull()
    expect(frameOf('00:01:00;01', { num: 60_000, den: 1001 })).toBeNull()
  })
  it('keeps up with the clock over a day', () => {
    const last = frameOf('23:59:59;29', NTSC) ?? 0
    expect(Math.abs(msAt(last + 1, NTSC) - 24 * 3_600_000)).toBeLessThan(100)
  })
  it('has none left out at 23.976', () => expect(timecodeOf(1440, RATES[0]!)).toBe('00:01:00:00'))
  it.each(['', '1:2:3:4', '00:00:00:30', '00:60:00:00', '00:00:00:0x'])('refuses "%s"', (text) => {
    expect(frameOf(text, { num: 30, den: 1 })).toBeNull()
  })
  it('is what others count, over a day', () => {
    fc.assert(
      fc.property(fc.constantFrom(...RATES), fc.nat(23 * 3600 - 1), fc.nat(59), (rate, seconds, within) => {
        const frame = frameAt(seconds * 1000, rate) + within
        const theirs = new Timecode(frame, [rate.num, rate.den], isDropFrame(rate))
        expect(timecodeOf(frame, rate)).toBe(theirs.toString())
        expect(frameOf(theirs.toString(), rate)).toBe(frame)
      }),
      { numRuns: 1000 },
    )
  })
  it('goes both ways, and rises with the frames', () => {
    fc.assert(
      fc.property(fc.constantFrom(...RATES), fc.integer({ min: 0, max: 2_000_000 }), (rate, frame) => {
        expect(frameOf(timecodeOf(frame, rate), rate)).toBe(frame)
        expect(timecodeOf(frame, rate).replace(';', ':') < timecodeOf(frame + 1, rate).replace(';', ':')).toBe(true)
        expect(frameAt(msAt(frame, rate), rate)).toBe(frame)
      }),
    )
  })
})
