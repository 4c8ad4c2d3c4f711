import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { choice, counts, length, text, type Field } from '../score/formats/fields'
import { exampleOf, quotedIn, readSetting, unquote, writeSetting } from './settings'

const ON = length('workMs', 'on'),
  ROUNDS = counts('rounds', 'rounds'),
  LAST = choice('lastRest', 'last rest', ['replaced', 'kept', 'dropped']),
  NAME = text('restLabel', 'rest is')
const SHAPE = choice('shape', 'shape', ['up', 'upAndDown'])
const PASSES: Field = { kind: 'lengths', field: 'passes', word: 'on', bare: [], usual: [] }
const TABLE: Field = { kind: 'workRests', field: 'rounds', word: 'rounds', bare: [], usual: [] }

describe('a setting as it is typed', () => {
  it.each<[string, Field[], unknown]>([
    ['40 on', [ON], 40_000],
    ['on 40', [ON], 40_000],
    ['1:15 on', [ON], 75_000],
    ['2m 30s on', [ON], 150_000],
    ['0.5 on', [ON], 500],
    ['40 ON', [ON], 40_000],
    ['3 rounds', [ROUNDS], 3],
    ['1 round', [ROUNDS], 1],
    ['rounds 3', [ROUNDS], 3],
    ['last rest dropped', [LAST], 'dropped'],
    ['shape up and down', [SHAPE], 'upAndDown'],
    ['rest is "Walk it out"', [NAME], 'Walk it out'],
    ['rest is Walk it out', [NAME], 'Walk it out'],
    ['rest is "say \\"ahoy\\""', [NAME], 'say "ahoy"'],
    ['40 then 20 on', [PASSES], [40_000, 20_000]],
    [
      '40/20 then 1:00/30 rounds',
      [TABLE],
      [
        { workMs: 40_000, restMs: 20_000 },
        { workMs: 60_000, restMs: 30_000 },
      ],
    ],
  ])('%s', (typed, fields, value) => expect(readSetting(fields, typed)?.value).toEqual(value))
  it.each<[string, Field[]]>([
    ['40', [ON]],
    ['on', [ON]],
    ['-40 on', [ON]],
    ['40 onn', [ON]],
    ['forty on', [ON]],
    ['1:75 on', [ON]],
    ['25:00:01 on', [ON]],
    ['0 rounds', [ROUNDS]],
    ['501 rounds', [ROUNDS]],
    ['2.5 rounds', [ROUNDS]],
    ['3 roundss', [ROUNDS]],
    ['last rest kep', [LAST]],
    ['kept last rest', [LAST]],
    ['shape upAndDown', [SHAPE]],
    ['rest is "open', [NAME]],
    ['rest is half"open', [NAME]],
    ['40 then on', [PASSES]],
    ['40/20/10 rounds', [TABLE]],
    ['40 then 20 rounds', [TABLE]],
  ])('is not taken for one: %s', (typed, fields) => expect(readSetting(fields, typed)).toBeNull())
  it('goes to the field whose word it has, and to a later one where the first does not understand it', () => {
    expect(readSetting([ON, ROUNDS], '3 rounds')?.field).toBe('rounds')
    expect(readSetting([LAST, length('restMs', 'rest')], 'rest 20')).toEqual({ field: 'restMs', value: 20_000 })
  })
})

describe('a setting as it is written', () => {
  it.each<[Field, unknown, string | null]>([
    [ON, 40_000, '40 on'],
    [ON, 75_000, '1:15 on'],
    [ON, 0, null],
    [ON, 1500, '1.5 on'],
    [ROUNDS, 1, null],
    [ROUNDS, 4, '4 rounds'],
    [counts('rungs', 'rungs', { high: 9, bare: 0 }), 1, '1 rung'],
    [counts('set', 'set', { high: 9, bare: 0 }), 2, 'set 2'],
    [LAST, 'replaced', null],
    [LAST, 'kept', 'last rest kept'],
    [SHAPE, 'upAndDown', 'shape up and down'],
    [NAME, '', null],
    [NAME, 'a, b', 'rest is "a, b"'],
    [length('leadInMs', 'lead'), 10_000, 'lead 10'],
    [PASSES, [40_000, 20_000], '40 then 20 on'],
  ])('%j of %j is %j', (field, value, written) => expect(writeSetting(field, value)).toBe(written))
  it('is read again as what it was, for any length, count and text', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 86_400_000 }),
        fc.integer({ min: 2, max: 500 }),
        fc.string({ minLength: 1, maxLength: 40 }),
        (ms, count, words) => {
          for (const [field, value] of [
            [ON, ms],
            [ROUNDS, count],
            [NAME, words],
          ] as const)
            expect(readSetting([field], writeSetting(field, value) ?? '')?.value).toEqual(value)
        },
      ),
      { numRuns: 500 },
    )
  })
  it('is shown by an example that is itself understood', () => {
    for (const field of [ON, ROUNDS, LAST, SHAPE, NAME, PASSES, TABLE])
      expect(readSetting([field], exampleOf(field))?.field).toBe(field.field)
  })
})

describe('quotes', () => {
  it('hold what stands between them, also quotes and backslashes', () => {
    expect(quotedIn('round "lap" "laps"')).toEqual(['lap', 'laps'])
    expect(quotedIn(String.raw`gear "a \"b\"", "c\\"`)).toEqual(['a "b"', 'c\\'])
    expect(unquote('"open')).toBeNull()
    expect(unquote('bare words')).toBe('bare words')
  })
})
