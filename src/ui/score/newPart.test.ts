import { describe, expect, it } from 'vitest'
import { FORMAT_NAMES } from '@/core/score/formats'
import { MOVES } from '@/core/score/moves'
import { scoreSchema } from '@/core/score/score'
import { score } from '@/core/testing'
import { sectionToAdd, stationToAdd } from './newPart'

describe('a section that is added', () => {
  it('of every format holds, twice over, with keys of its own', () => {
    let all = score()
    for (const format of [...FORMAT_NAMES, ...FORMAT_NAMES])
      all = { ...all, sections: [...all.sections, sectionToAdd(all, format)] }
    expect(scoreSchema.safeParse(all).error).toBeUndefined()
    expect(new Set(all.sections.map((one) => one.key)).size).toBe(2 * FORMAT_NAMES.length)
    expect(all.sections.every((one) => one.name)).toBe(true)
  })
  it('is called by its part in the session: welcome first, then main, then what it is', () => {
    let all = score()
    const add = (format: (typeof FORMAT_NAMES)[number]): string => {
      all = { ...all, sections: [...all.sections, sectionToAdd(all, format)] }
      return all.sections.at(-1)?.name ?? ''
    }
    expect([
      add('talk'),
      add('warmUp'),
      add('circuit'),
      add('ladder'),
      add('finisher'),
      add('coolDown'),
      add('talk'),
    ]).toEqual(['Welcome', 'Warm-up', 'Main', 'Ladder', 'Finisher', 'Cool-down', 'Goodbye'])
  })
})

describe('a station that is added', () => {
  it('is the next move that is not there yet, and a blank when all are', () => {
    const first = stationToAdd([])
    expect(first.label).toBe(MOVES[0]?.name)
    expect(stationToAdd([first]).label).toBe(MOVES[1]?.name)
    const all = MOVES.map((move) => ({ ...first, label: move.name }))
    expect(stationToAdd(all).label).toBe('New move')
    expect(stationToAdd([], { reps: 10 }).reps).toBe(10)
  })
})
