import { toCardinal } from 'n2words/en-GB'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { numbersIn } from './saidNumbers'

const said = (text: string) =>
  numbersIn(
    text.split(' ').map((word, at) => ({ text: word, atMs: 1000 + at * 300, spreadMs: 120 })),
    text,
  ).map(({ amount, counted, atMs }) => [amount, counted, atMs])

describe('numbers in captions', () => {
  it.each([
    ['forty-five seconds of work', 45, 'seconds'],
    ['forty five seconds', 45, 'seconds'],
    ['45 seconds', 45, 'seconds'],
    ['45s', null, null],
    ['30sec', 30, 'seconds'],
    ['cuarenta y cinco segundos', 45, 'seconds'],
    ['fünfundvierzig sekunden', 45, 'seconds'],
    ['quarante-cinq secondes', 45, 'seconds'],
    ['twelve reps', 12, 'reps'],
    ['zwölf wiederholungen', 12, 'reps'],
    ['three rounds', 3, 'rounds'],
    ['two minutes', 120, 'seconds'],
    ['one minute and thirty seconds', 90, 'seconds'],
  ])('%s', (text, amount, counted) => {
    expect(said(text).map((one) => one.slice(0, 2))).toEqual(amount === null ? [] : [[amount, counted]])
  })
  it('are where they begin', () => {
    expect(said('now hold it for forty five seconds')).toEqual([[45, 'seconds', 1000 + 4 * 300]])
  })
  it('are none without what they count, nor of letters that look like one', () => {
    for (const text of ['forty five', 'seconds', 'some seconds', 'someone rounds it', '0 seconds', '4000 reps'])
      expect(said(text)).toEqual([])
  })
  it('are read as they are spelt, whatever stands before', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100 }), fc.constantFrom('', 'give me ', 'and now '), (amount, before) => {
        expect(said(`${before}${toCardinal(amount)} reps`).map(([found]) => found)).toEqual([amount])
      }),
    )
  })
})
