import { expect, it } from 'vitest'
import { MOVES } from '@/core/score/moves'
import { EMPTY_FILTER, filterMoves, type MoveFilter } from './filterMoves'

const found = (change: Partial<MoveFilter>, own: string[] = []): string[] =>
  filterMoves(MOVES, { ...EMPTY_FILTER, ...change }, new Set(own)).map((move) => move.name)

it('shows all without a filter', () => expect(found({})).toHaveLength(MOVES.length))
it('needs every typed word, in any field and any order', () => {
  expect(found({ text: 'JUG water' })).toEqual(['Jug lift', 'Anchor row'])
  expect(found({ text: 'land like a cat' })).toEqual(['Jump squat'])
  expect(found({ text: 'zeppelin' })).toEqual([])
})
it('narrows by posture, muscle, impact, tag and own', () => {
  expect(found({ posture: 'seated', muscle: 'trunk', tag: 'boat' })).toEqual(['Tiller twist', 'Porthole turn'])
  expect(found({ impact: 'high', posture: 'handsFeet' })).toContain('Burpee')
  expect(found({ impact: 'high', posture: 'faceUp' })).toEqual([])
  expect(found({ ownOnly: true }, ['squat'])).toEqual(['Squat'])
})
it.each([
  ['abs', 'Crunch'],
  ['core', 'Plank'],
  ['glutes', 'Glute bridge'],
  ['push-up', 'Press-up'],
  ['dumbbell', 'Goblet squat'],
  ['jumping jacks', 'Jumping jack'],
  ['hamstrings', 'Deadlift'],
  ['tricep dip', 'Chair dip'],
])('finds what a coach expects: %s', (text, wanted) => expect(found({ text })).toContain(wanted))
