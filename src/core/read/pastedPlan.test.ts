import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expand } from '../expand/expand'
import { scoreSchema } from '../score/score'
import { printShorthand } from '../shorthand/print'
import { readPastedPlan } from './pastedPlan'

const shorthand = (text: string): string => printShorthand(readPastedPlan(text)).replace(/^title.*\n/, '')

describe('a plan as people type it', () => {
  it.each([
    [
      '3 rounds: 40s lantern reach / 20s rest, 40s jug lift / 20s rest',
      'circuit Main: 3 rounds, 40 on, 20 off, last rest kept\n  Lantern reach; Jug lift\n',
    ],
    [
      'Main circuit - 4 rounds, 35 seconds on, 15 seconds off, 1 min rest between rounds\n- Jug lift\n- Lock-gate push\n- Tiller twist',
      'circuit Main circuit: 4 rounds, 35 on, 15 off, 1:00 between\n  Jug lift; Lock-gate push; Tiller twist\n',
    ],
    [
      '40/20 x 3 rounds\n1. Jug lift\n2. Keel hold 30s',
      'circuit Main: 3 rounds, 40 on, 20 off\n  Jug lift; Keel hold (30 on)\n',
    ],
    // No rest is no rest, and never a millisecond of one.
    ['3 rounds: 40s on, 0 s off\n- Jug lift\n- Keel hold', 'circuit Main: 3 rounds, 40 on\n  Jug lift; Keel hold\n'],
    ['Warm up:\nHeel digs 45 sec\nMooring march x 20', 'warm-up Warm up:\n  Heel digs (45 on); 20 Mooring march\n'],
    [
      'Finisher: 3 rounds\n10 deck-rail squats\n8 lock-gate pushes',
      'finisher Finisher: 3 rounds\n  10 Deck-rail squats; 8 Lock-gate pushes\n',
    ],
    ['EMOM 12 min: 12 squats, 8 press-ups', 'minute-reps EMOM: 6 rounds\n  12 Squats; 8 Press-ups\n'],
    ['Cool down:\nStern stretch 30s each side', 'cool-down Cool down:\n  Stern stretch (30 on, sides each)\n'],
  ])('%j', (text, wanted) => expect(shorthand(text)).toBe(wanted))
  it('sums what it read', () => {
    // 3 x (40 + 20 + 40 + 20) = 360 s.
    expect(expand(readPastedPlan('3 rounds: 40s lantern reach / 20s rest, 40s jug lift / 20s rest')).totalMs).toBe(
      360_000,
    )
  })
  it('takes the first line as the title, and keeps what it does not understand', () => {
    const score = readPastedPlan(
      'Deck Hours 15: roof day\nAll you need is a jug and a bit of roof, come and join me on Sunday\n3 rounds, 40s on, 20s off\n- Jug lift\nHave fun and drink water, see you all again next week on the boat!',
    )
    expect(score.title).toBe('Deck Hours 15: roof day')
    const lines = printShorthand(score)
    expect(lines).toContain('? All you need is a jug')
    expect(lines).toMatch(/\? .*see you all again next week/)
    expect(score.sections).toHaveLength(1)
  })
  it.each([
    ['a second pair of lengths', '3 rounds, 40/20, 30/10\n- Squat', ['? 30/10']],
    [
      'a sentence with a comma in it',
      '3 rounds, 40/20\n- Squat\nHave fun and drink water, see you all again next week on the boat!',
      ['? Have fun and drink water, see you all again next week on the boat!'],
    ],
    ['another number of rounds', '3 rounds, 40/20\n- Squat\n5 rounds', ['? 5 rounds']],
    [
      'a length that the section works out itself',
      'Main circuit (20 min) - 3 rounds, 40/20\n- Squat\n- Lunge',
      ['? 20 min'],
    ],
    [
      'rounds and reps of a cool-down',
      'Cool down: 3 rounds\n- 12 Stern stretch\n- Chest opener 30s\n20s rest',
      ['? 3 rounds', '? 12 Stern stretch', '? 20s rest'],
    ],
    ['rests of a finisher', 'Finisher: 3 rounds, 25s rest\n10 squats', ['? 25s rest']],
    ['rounds beside minutes', 'EMOM 12 min, 3 rounds: 12 squats, 8 press-ups', ['? 3 rounds']],
    ['the length of a warm-up without moves', 'Warm up: 5 minutes, 2 rounds', ['? 2 rounds', '? 5 minutes']],
  ])('keeps what has no place in the section: %s', (_what, text, kept) => {
    const lines = shorthand(text).split('\n')
    expect(lines.filter((line) => line.startsWith('?')).sort()).toEqual([...kept].sort())
    expect(lines.some((line) => /^[a-z-]+ .+:/.test(line))).toBe(true)
  })
  it('takes numbers out of a name and leaves no marks behind', () =>
    expect(shorthand('Main circuit (20 min) - 3 rounds, 40/20, 30/10\n- Squat')).toBe(
      '? 30/10\n? 20 min\ncircuit Main circuit: 3 rounds, 40 on, 20 off\n  Squat\n',
    ))
  it('ends words where letters end, not where a to z end', () =>
    expect(shorthand('upéx 12 rounds\n- Squat 40s')).toContain('upéx'))
  it('loses no number: each is in the score, or in a line that is marked', () => {
    const one = fc.constantFrom(
      (n: number) => `${n}s jug lift`,
      (n: number) => `- Keel hold ${n}s`,
      (n: number) => `${n} squats`,
      (n: number) => `${n}s rest`,
      (n: number) => `${n} rounds`,
      (n: number) => `${n}s on`,
      (n: number) => `${n}s rest between rounds`,
      (n: number) => `x ${n}`,
      (n: number) => `- Rope pull x ${n}`,
    )
    const before = fc.constantFrom(
      '',
      'Finisher: ',
      'Cool down: ',
      'Warm up: ',
      'Tabata: ',
      'Main circuit - ',
      '3 rounds: ',
    )
    const numbers = fc.uniqueArray(fc.integer({ min: 31, max: 99 }), { minLength: 1, maxLength: 8 })
    fc.assert(
      fc.property(
        numbers,
        fc.infiniteStream(one),
        fc.infiniteStream(before),
        fc.infiniteStream(fc.constantFrom('\n', ', ', ' / ')),
        (some, pieces, heads, marks) => {
          const text = some
            .map(
              (n) =>
                `${heads.next().value as string}${(pieces.next().value as (n: number) => string)(n)}${marks.next().value as string}`,
            )
            .join('')
          const kept = JSON.stringify(readPastedPlan(text))
          for (const n of some) expect(kept, text).toContain(String(n))
        },
      ),
      { numRuns: 3000 },
    )
  })
  it('loses no word of any text, and always makes a score that holds', () => {
    const words = fc.constantFrom(
      '3 rounds',
      ':',
      '40s',
      ' jug lift',
      ' / ',
      '20s rest',
      '\n',
      '- ',
      '1. ',
      ', ',
      'x 12',
      ' each side',
      'EMOM',
      'Warm up',
      'Tabata',
      '40/20',
      ' between rounds',
      'see you soon!',
      '(',
      ')',
      '9999999999',
      '0',
      'é',
    )
    fc.assert(
      fc.property(
        fc.oneof(
          fc.array(words, { maxLength: 30 }).map((some) => some.join('')),
          fc.string({ unit: 'binary' }),
        ),
        (text) => {
          const score = readPastedPlan(text)
          expect(scoreSchema.safeParse(score).error).toBeUndefined()
          const kept = JSON.stringify(score).toLowerCase()
          for (const word of text.toLowerCase().match(/[a-zé]{4,}/g) ?? []) {
            if (!/round|rest|side|between|each|tabata|emom|warm/.test(word)) expect(kept).toContain(word.slice(0, 4))
          }
        },
      ),
      { numRuns: 1500 },
    )
  })
})
