import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { expand, tryExpand } from '../expand/expand'
import { namesIn } from '../score/library'
import { scoreSchema } from '../score/score'
import { printShorthand } from '../shorthand/print'
import { choiceLabel, questionAbout } from '../words/en/plans'
import { readCorpus, runningOrder, tryPlan } from './plans/corpus'
import { readShorthand } from '../shorthand/read'
import { LONGEST_PLAN, readTypedPlan } from './typedPlan'

const PLANS = 'src/core/read/plans/tuned'
const plans = readdirSync(PLANS)
  .sort()
  .flatMap((file) => readCorpus(readFileSync(join(PLANS, file), 'utf8')))

/** Plans that are known to be read wrong; whoever mends one takes it out. */
const WRONG = new Set([
  'a climb by reps in words',
  'arrows between moves',
  'breathing at the end',
  'fixed minute, growing work',
  'kettlebell ladder of reps',
  'long and short',
  'numbered by the clock',
  'slash pairs in four minutes',
])

describe('a plan as people type it', () => {
  it.each(plans.map((plan) => [plan.name, plan] as const))('%s', (name, plan) => {
    const { reading, right } = tryPlan(plan)
    if (WRONG.has(name)) return expect(right).toBe(false)
    expect(runningOrder(reading.score)).toEqual(runningOrder(readShorthand(plan.meant).score))
  })
  it('gives every token a fate, and names what it was used as', () => {
    const { tokens } = readTypedPlan('3 rounds, 40s on, 20s off\n- Squats\n- 17 planks 99')
    expect(tokens.map(({ fate }) => fate)).not.toContain(undefined)
    expect(tokens.filter(({ fate }) => fate === 'used').map(({ text, as }) => `${text} ${as}`)).toEqual([
      '3 rounds',
      'rounds rounds',
      '40s work',
      'on work',
      ', rest',
      '20s rest',
      'off rest',
      'Squats move',
      '17 reps',
      'planks move',
    ])
    expect(tokens.find(({ text }) => text === '99')?.fate).toBe('unread')
  })
})

describe('a question', () => {
  const text = '20/10, 8 rounds\nSquats\nBurpees'
  it('is asked where readings are close, the likelier one chosen', () => {
    const { questions, score } = readTypedPlan(text)
    const [question] = questions
    expect(question && questionAbout(question)).toBe('eight rounds with two moves')
    // 8 x 30 s less the last rest, or twice 8 of them.
    expect(question?.choices.map(({ label, totalMs, chosen }) => [choiceLabel(label), totalMs, chosen])).toEqual([
      ['eight in turn', 230_000, true],
      ['eight of each', 470_000, false],
    ])
    expect(expand(score).totalMs).toBe(230_000)
  })
  it('takes an answer', () => {
    const { questions, score } = readTypedPlan(text, '', [1])
    expect(questions[0]?.choices.map(({ chosen }) => chosen)).toEqual([false, true])
    expect(expand(score).totalMs).toBe(470_000)
  })
  it('is not asked where the plan states its total', () => {
    expect(readTypedPlan(`Tabata (8 min)\n${text}`).questions).toEqual([])
    expect(readTypedPlan('8 rounds of 20s on, 10s off (3:50)\nSquats').questions).toEqual([])
  })
  it('is one of three at most', () => {
    const block = (letter: string): string => `Block ${letter}: 20/10, 8 rounds\nSquats\nBurpees\n`
    expect(readTypedPlan(['A', 'B', 'C', 'D', 'E'].map(block).join('')).questions).toHaveLength(3)
  })
})

describe('a total that no reading gives', () => {
  it('is said', () => {
    expect(readTypedPlan('Main (10 min): 3 rounds, 40s on, 20s off\n- Squats\n- Plank').unmet).toEqual({
      statedMs: 600_000,
      totalMs: 340_000,
    })
  })
})

describe('what is never done', () => {
  const CLOCK_WORDS =
    /^(?:on|off|work|rest|rounds?|sets?|blocks?|groups?|sections?|exercises?|seconds?|secs?|minutes?|mins?|workout|equipment|warm-?up|tabata|emom|amrap|hiit|x|each|between|break|no rest|circuit|reps?)$/i
  const piece = fc.constantFrom(
    ...[
      '3 rounds',
      '40s on',
      '20s off',
      '40/20',
      '45 sec work',
      '15 sec rest',
      'no rest',
      'x 8',
      '1 min between rounds',
    ],
    ...[
      'Tabata',
      'EMOM 10',
      'AMRAP 8 min',
      'Warm-up',
      'Cool-down',
      'Block 1',
      'Round 2',
      'Equipment: towel',
      '20 MIN HIIT',
    ],
    ...[
      'Squats',
      '12 burpees',
      'Plank 30s',
      'Side plank each side',
      'Jug lift + rope pull',
      'Workout',
      'Rest 20s',
      'the',
    ],
    ...[
      'Set 1',
      'exercises',
      'each',
      '(swap halfway)',
      '5 moves',
      'repeat 3 times',
      'see you soon!',
      'total 12 minutes',
    ],
  )
  const mark = fc.constantFrom('\n', '\n- ', ', ', ' / ', ' - ', ': ', '\n1. ', ' ')
  const anyPlan = fc
    .array(fc.tuple(piece, mark), { maxLength: 14 })
    .map((pieces) => pieces.map(([said, between]) => said + between).join(''))

  it('turns no word of the clock into a move', () =>
    fc.assert(
      fc.property(anyPlan, (text) => {
        for (const name of namesIn(readTypedPlan(text).score)) expect(name, text).not.toMatch(CLOCK_WORDS)
      }),
      { numRuns: 600 },
    ))
  it('loses no number, no word and no place, and makes a score that holds', () =>
    fc.assert(
      fc.property(fc.oneof(anyPlan, fc.string({ unit: 'binary', maxLength: 200 })), (text) => {
        const { score, tokens } = readTypedPlan(text)
        expect(scoreSchema.safeParse(score).error).toBeUndefined()
        expect(tryExpand(score).problem?.code).not.toBe('unexpected')
        const kept = `${printShorthand(score)}${JSON.stringify(score)}`.toLowerCase()
        const lines = text.split(/\r\n|\r|\n|\u2028|\u2029/)
        for (const token of tokens) {
          // Each token says where it stands.
          expect(lines[token.line]?.slice(token.from, token.to) ?? '').toContain(token.text)
          // What became a move, and what nobody understood, stands in the score.
          const there = token.fate === 'unread' || token.as === 'move'
          if (there && /^[a-z0-9 ]+$/i.test(token.text)) expect(kept, text).toContain(token.text.toLowerCase())
        }
        const said = tokens.map(({ text: one }) => one).join('')
        for (const letter of text.match(/\p{L}|\p{N}/gu) ?? []) expect(said).toContain(letter)
      }),
      { numRuns: 600 },
    ))
  it('reads no book', () => {
    expect(() => readTypedPlan('x'.repeat(LONGEST_PLAN + 1))).toThrow(/200,000/)
  })
})

describe('what is Jivet’s own', () => {
  it('is taken as it is: shorthand and interval table', () => {
    const shorthand = 'title Roof day\ncircuit Main: 2 rounds, 40 on\n  Jug lift; Keel hold\n'
    expect(printShorthand(readTypedPlan(shorthand).score)).toBe(shorthand)
    const table = 'section,round,kind,label,side,seconds\nMain,1,work,Jug lift,left,35\n'
    expect(readTypedPlan(table).score.sections).toMatchObject([{ format: 'list', rows: [{ label: 'Jug lift' }] }])
  })
})
