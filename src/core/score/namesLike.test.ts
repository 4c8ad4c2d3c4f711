import { describe, expect, it } from 'vitest'
import { namesLike } from './namesLike'

const NAMES = ['Squat', 'Jump squat', 'Squat hold', 'Rope pull', 'Aquatic hop']

describe('names that letters may become', () => {
  it('begin with them, then hold a word that does', () => {
    expect(namesLike('squ', NAMES)).toEqual(['Squat', 'Squat hold', 'Jump squat'])
    expect(namesLike(' ROPE', NAMES)).toEqual(['Rope pull'])
  })
  it('are none for nothing, for nonsense, and for a name that is whole', () => {
    for (const typed of ['', '  ', 'zz', 'squat']) expect(namesLike(typed, NAMES)).toEqual([])
  })
})
