import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { castOf, type Facts } from './cast'
import { MOVES, OTHER_NAMES_OF } from './moves'
import { nameKey } from './nameKey'
import { readShorthand } from '../shorthand/read'
import { settle, unsureIn } from './unsure'

const cast = castOf([])
const like = (name: string): string => {
  const { sure, because } = cast(name)
  return `${sure}${because.map((one) => (one.code === 'head' ? ` ${one.move}` : one.code === 'combined' ? ` ${one.moves.join(' + ')}` : ` ${one.word}`)).join(',')}`
}

describe('a name of the library, however it is written', () => {
  it.each([
    ['SQUATS', 'Squat'],
    ['push-ups', 'Press-up'],
    ['pushups', 'Press-up'],
    ['Press up', 'Press-up'],
    ['jumping jacks', 'Jumping jack'],
    ['DB deadlift', 'Romanian deadlift'],
    ['KB swings', 'Swing'],
    ['SL bridge', 'One-leg bridge'],
    ['single-leg glute bridge', 'One-leg bridge'],
    ['climbers, mountain', 'Mountain climber'],
    ['Bicep curls', 'Biceps curl'],
    ['child’s pose', "Child's pose"],
    ['Squat + press', 'Squat to press'],
    ['cat-cow', 'Cat and cow'],
    ['crunches', 'Crunch'],
  ])('%s is %s', (name, wanted) => {
    const facts = cast(name)
    expect(facts.sure).toBe('known')
    const { muscles, posture } = MOVES.find((move) => move.name === wanted) as Facts
    expect(facts).toMatchObject({ muscles, posture })
  })
  it('means one move only: no other name stands for two', () => {
    const seen = new Map<string, string>()
    const names = [...MOVES.map((move) => [move.name, move.name] as const), ...OTHER_NAMES_OF]
    const twice = names.filter(([name, move]) => {
      const before = seen.get(nameKey(name))
      seen.set(nameKey(name), before ?? move)
      return before !== undefined && before !== move
    })
    expect(twice).toEqual([])
  })
  it('is one of at least 250, each with facts that hold', () => {
    expect(MOVES.length).toBeGreaterThanOrEqual(250)
    const other = new Set(OTHER_NAMES_OF.map(([, move]) => move))
    const plain = MOVES.filter((move) => move.tags.includes('plain') && !other.has(move.name))
    expect(plain.map(({ name }) => name)).toEqual([])
  })
})

describe('a head with modifiers', () => {
  it.each([
    ['Weighted lunge', 'guessed Lunge, weighted'],
    ['Slow press-ups', 'guessed Press-up, slow'],
    ['Jumping split squat', 'guessed Split squat, jump'],
    ['Seated overhead press', 'guessed Overhead press, seated'],
  ])('%j: %s', (name, wanted) => expect(like(name)).toBe(wanted))
  it('changes what it has to', () => {
    expect(cast('Jumping split squat')).toMatchObject({ impact: 'high', effort: 5, posture: 'standing' })
    expect(cast('Weighted lunge')).toMatchObject({ gear: ['weight'], effort: 4 })
    expect(cast('Seated overhead press')).toMatchObject({ posture: 'seated' })
  })
  it('never makes two intervals of one', () => {
    for (const name of ['Deep hamstring stretch', 'Slow thigh stretch'])
      expect(cast(name).sideRule, name).not.toBe('each')
  })
})

describe('several moves in one', () => {
  it('join their muscles, land as hard as the hardest, and end elsewhere than they begin', () => {
    expect(like('2 press-ups + 1 burpee')).toBe('guessed Press-up + Burpee')
    expect(cast('Squat and crunch')).toMatchObject({
      sure: 'guessed',
      posture: 'standing',
      endPosture: 'faceUp',
      effort: 3,
      muscles: ['thighs', 'hips', 'trunk'],
      secondsPerRep: 5,
    })
  })
  it('are unknown where one of them is', () => expect(cast('Squat and barge waltz').sure).toBe('unknown'))
})

describe('what nobody knows', () => {
  it('stays unknown, whatever is typed', () => {
    expect(cast('Barge waltz')).toMatchObject({
      sure: 'unknown',
      posture: null,
      impact: null,
      effort: null,
      muscles: [],
    })
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 60 }), (name) => {
        expect(['known', 'guessed', 'unknown']).toContain(cast(name).sure)
      }),
    )
  })
})

describe('settling', () => {
  it('makes all that is guessed known, and what nobody knows only by saying what it is like', () => {
    const { score } = readShorthand('circuit Main: 2 rounds, 40 on\n  Weighted lunge; Barge waltz; Squat\n')
    const [lunge, waltz, ...more] = unsureIn(score)
    expect(more).toEqual([])
    if (!lunge || !waltz) throw new Error('two are unsure')
    expect([lunge.like, waltz.like]).toEqual(['Lunge', ''])
    expect(settle(score, lunge, lunge.like)).toBe(true)
    expect(settle(score, waltz, '')).toBe(false)
    expect(settle(score, waltz, 'Skater')).toBe(true)
    expect(unsureIn(score)).toEqual([])
    expect(castOf(score.moves)('Barge waltz')).toMatchObject({ sure: 'known', impact: 'high' })
    expect(castOf(score.moves)('Weighted lunge')).toMatchObject({ sure: 'known', gear: ['weight'] })
  })
})
