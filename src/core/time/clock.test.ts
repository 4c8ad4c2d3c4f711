import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DAY } from '../units'
import { formatClock, formatInstant, formatLength, parseLength, parseMinutes } from './clock'

describe('parseLength', () => {
  it.each([
    ['45', 45_000],
    ['1:15', 75_000],
    ['1:02:03', 3_723_000],
    ['0:45.5', 45_500],
    ['12,5', 12_500],
    ['2m 30s', 150_000],
    ['1h', 3_600_000],
    ['90s', 90_000],
    ['0', 0],
  ])('reads %s', (text, ms) => {
    expect(parseLength(text)).toBe(ms)
  })
  it.each(['', ' ', 'abc', '-5', '1:75', '1:2:3:4', '25:00:00', '1e3', 'NaN', '5 5', ':30'])('refuses "%s"', (text) => {
    expect(parseLength(text)).toBeNull()
  })
  it('reads back what formatLength writes, to the millisecond', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: DAY }), (ms) => {
        expect(parseLength(formatLength(ms))).toBe(ms)
      }),
    )
  })
  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        const ms = parseLength(text)
        expect(ms === null || (Number.isInteger(ms) && ms >= 0 && ms <= DAY)).toBe(true)
      }),
    )
  })
})

describe('parseMinutes', () => {
  it.each([
    ['20', 1_200_000],
    ['7.5', 450_000],
    ['0:20', 20_000],
    ['20s', 20_000],
    ['1:15:00', 4_500_000],
  ])('reads %s where minutes are meant', (text, ms) => expect(parseMinutes(text)).toBe(ms))
  it.each(['', '-5', 'soon', '2000'])('refuses "%s"', (text) => expect(parseMinutes(text)).toBeNull())
})

describe('writing', () => {
  it('writes lengths, clocks and instants', () => {
    expect(formatLength(75_000)).toBe('1:15')
    expect(formatLength(-1500)).toBe('-0:01.5')
    expect(formatClock(59_600)).toBe('1:00')
    expect(formatClock(3_600_000)).toBe('1:00:00')
    expect(formatInstant(61_007)).toBe('1:01.007')
  })
})
