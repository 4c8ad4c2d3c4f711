import { describe, expect, it } from 'vitest'
import { PLAIN_WORDS, wordsFor } from '../../score/vocabulary'
import { countersOf, nameOf, roundOf, setOf, stationOf } from './names'

describe('what an interval is called', () => {
  it.each([
    [{ kind: 'work', label: 'Jug lift', side: 'left' }, 'Jug lift, left'],
    [{ kind: 'work', label: 'Jug lift', side: 'switch' }, 'Jug lift, left then right'],
    [{ kind: 'work', label: 'Jug lift', side: 'both' }, 'Jug lift, both sides'],
    [{ kind: 'work', label: '', side: null }, 'Work'],
    [{ kind: 'rest', label: '', side: null }, 'Rest'],
    [{ kind: 'rest', label: 'Walk the towpath', side: null }, 'Walk the towpath'],
    [{ kind: 'lead', label: '', side: null }, 'Get ready'],
    [{ kind: 'break', label: '', side: null }, 'Break'],
    [{ kind: 'talk', label: 'Welcome', side: null }, 'Welcome'],
  ] as const)('%j is %s', (segment, name) => expect(nameOf(segment)).toBe(name))
})

describe('counters', () => {
  const at = { round: 2, rounds: 3, set: 1, sets: 4, station: 5, stations: 6, words: PLAIN_WORDS }
  it('name where we are of how many, widest first', () =>
    expect(countersOf(at)).toEqual(['Set 1 of 4', 'Round 2 of 3', 'Station 5 of 6']))
  it('say nothing where there is only one, or nothing to count', () => {
    expect(roundOf({ ...at, round: 1, rounds: 1 })).toBe('')
    expect(setOf({ ...at, set: null, sets: null })).toBe('')
    expect(countersOf({ ...at, rounds: 1, round: 1, sets: null, set: null, stations: 1, station: 1 })).toEqual([])
  })
  it("use the creator's words, and the format's where none were chosen", () => {
    const chosen = { round: { one: 'lap', many: 'laps' }, set: null, station: null, block: null }
    const words = wordsFor(chosen, { set: { one: 'pair', many: 'pairs' }, round: { one: 'pass', many: 'passes' } })
    expect(countersOf({ ...at, words })).toEqual(['Pair 1 of 4', 'Lap 2 of 3', 'Station 5 of 6'])
    expect(stationOf({ ...at, words })).toBe('Station 5 of 6')
  })
})
