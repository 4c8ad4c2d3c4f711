import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyMove, anyScore } from '../arbitraries'
import { around } from '../testing'
import { printShorthand } from '../shorthand/print'
import { readShorthand } from '../shorthand/read'
import { castOf } from './cast'
import { recognise, toList } from './listing'
import { changeMove, uses, withLibrary } from './library'
import { moveSchema } from './move'
import { scoreSchema, type Score } from './score'
import { capital, counted, PLAIN_WORDS, wordsFor } from './vocabulary'

const plan = (text: string): Score => readShorthand(text).score
const punt = moveSchema.parse({ name: 'Punt push', secondsPerRep: 2.5 })

describe('who plays', () => {
  it('is found whatever the capitals, own moves before those that ship', () => {
    const cast = castOf([{ ...punt, name: 'Squat', effort: 1 }])
    expect([cast('squat').effort, cast('SQUAT ').effort, cast('Lunge').effort]).toEqual([1, 1, 3])
    const sure = [castOf([punt])('punt PUSH'), castOf([])('Squat'), castOf([])('Barge waltz')].map((one) => one.sure)
    expect(sure).toEqual(['known', 'known', 'unknown'])
  })
  it('stays unknown when nobody knows the name', () => {
    expect(castOf([])('Barge waltz')).toMatchObject({
      sure: 'unknown',
      posture: null,
      effort: null,
      muscles: [],
      secondsPerRep: 3,
    })
  })
})

describe('a score and the library', () => {
  it('takes along the own moves that it names, also in swaps and lists, once', () => {
    const score = plan('circuit Main: 2 rounds, 40 on\n  Squat (from 2 punt push)\nlist More:\n  Punt push (30 work)\n')
    withLibrary(score, [punt, { ...punt, name: 'Unused' }])
    withLibrary(score, [punt])
    expect(score.moves).toEqual([punt])
    expect(uses(score, 'PUNT push')).toBe(true)
    expect(uses(score, 'Unused')).toBe(false)
  })
  it('changes a move wherever it stands, name and facts', () => {
    const score = plan(
      'pairs Main: 2 times, 40 on\n  Punt push + Squat (from 2 Punt push)\nlist More:\n  Punt push (30 work); Punt push (10 rest)\n',
    )
    changeMove(score, { ...punt, name: 'Quant push' }, 'Punt push')
    expect(printShorthand(score)).toContain('Quant push + Squat (from 2 Quant push)')
    expect(uses(score, 'Punt push')).toBe(false)
    expect(score.moves.map((move) => move.name)).toEqual(['Quant push'])
  })
  it('leaves a score that holds, whatever the score and the moves', () => {
    fc.assert(
      fc.property(anyScore, anyMove, (score, move) => {
        const copy = structuredClone(score)
        changeMove(copy, move, 'Jug lift')
        withLibrary(copy, [move])
        expect(scoreSchema.safeParse(copy).error).toBeUndefined()
      }),
      { numRuns: 60 },
    )
  })
})

describe('a free list', () => {
  it('that no format gives stays a list', () => {
    const odd = plan(
      'list Main:\n  Squat (31 work); - (7 rest); Lunge (44 work); Plank (12 work); - (19 rest); Sip (50 break); Squat (9 work)\n',
    ).sections[0]
    expect(odd?.format === 'list' && recognise(odd, around())).toBeNull()
    const none = plan('list Main:\n').sections[0]
    expect(none?.format === 'list' && recognise(none, around())).toBeNull()
  })
  it('is recognised without being told what it was', () => {
    const [section] = plan('circuit Main: 3 rounds, 40 on, 20 off, 1:00 between\n  Squat; Lunge; Plank\n').sections
    if (!section) throw new Error('no section')
    const found = recognise({ ...toList(section, around()), from: null }, around())
    expect(found).toMatchObject({
      format: 'circuit',
      rounds: 3,
      workMs: 40_000,
      restMs: 20_000,
      roundBreakMs: 60_000,
      stations: [{ label: 'Squat' }, { label: 'Lunge' }, { label: 'Plank' }],
    })
  })
  it('keeps key, name and remarks both ways', () => {
    const [section] = plan('# roof\nladder Up @up-there: 3 rungs, from 10, step 5\n  Squat\n').sections
    if (!section) throw new Error('no section')
    const list = toList(section, around())
    expect(list).toMatchObject({ key: 'up-there', name: 'Up', above: ['# roof'] })
    expect(recognise(list, around())).toMatchObject({
      format: 'ladder',
      key: 'up-there',
      name: 'Up',
      above: ['# roof'],
    })
  })
})

describe('vocabulary', () => {
  it("is the creator's before the format's before the plain one", () => {
    const chosen = { ...plan('words: round "lap" "laps"\n').vocabulary }
    expect(wordsFor(chosen, { round: { one: 'rung', many: 'rungs' }, set: { one: 'pair', many: 'pairs' } })).toEqual({
      ...PLAIN_WORDS,
      round: { one: 'lap', many: 'laps' },
      set: { one: 'pair', many: 'pairs' },
    })
    expect([counted(1, PLAIN_WORDS.round), counted(4, PLAIN_WORDS.round), capital('élan')]).toEqual([
      '1 round',
      '4 rounds',
      'Élan',
    ])
  })
})
