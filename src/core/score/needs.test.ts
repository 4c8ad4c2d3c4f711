import { describe, expect, it } from 'vitest'
import { changeOfPosture, needsSchema, USUAL_NEEDS } from './needs'
import { POSTURES, type Posture } from './postures'

describe('a change of posture', () => {
  const all = POSTURES.flatMap((from) => POSTURES.map((to): [Posture, Posture] => [from, to]))
  it.each(all)('from %s to %s takes nothing where nothing changes, else seconds and a name', (from, to) => {
    const change = changeOfPosture(from, to, USUAL_NEEDS)
    if (from === to) return expect(change).toBeNull()
    expect(change?.ms).toBeGreaterThan(0)
    expect(change?.code).toMatch(/^[a-z-]+$/)
  })
  it.each<[Posture, Posture, number, string]>([
    ['faceDown', 'standing', 4, 'stand-up'],
    ['seated', 'standing', 4, 'stand-up'],
    ['standing', 'handsFeet', 3, 'get-to-floor'],
    ['standing', 'kneeling', 2, 'kneel-down'],
    ['kneeling', 'standing', 2, 'stand-up'],
    ['faceUp', 'kneeling', 2, 'kneel'],
    ['kneeling', 'faceUp', 2, 'leave-kneeling'],
    ['faceUp', 'faceDown', 2, 'turn-over'],
  ])('%s to %s is %s s: %s', (from, to, seconds, code) =>
    expect(changeOfPosture(from, to, USUAL_NEEDS)).toEqual({ code, ms: seconds * 1000 }),
  )
  it("takes the creator's own seconds", () =>
    expect(changeOfPosture('faceDown', 'standing', { ...USUAL_NEEDS, floorToStand: 7.5 })?.ms).toBe(7500))
})

describe('the table of needs', () => {
  it('is the usual one, and may be changed in part', () => {
    expect(needsSchema.safeParse(USUAL_NEEDS).success).toBe(true)
    expect(needsSchema.parse({ countIn: 0 })).toEqual({ countIn: 0 })
  })
  it.each([
    { countIn: -1 },
    { countIn: 121 },
    { wordsPerSecond: 0 },
    { wordsPerSecond: 11 },
    { gearChange: 'long' },
    { gearChange: Number.NaN },
  ])('refuses %j', (typed) => expect(needsSchema.safeParse(typed).success).toBe(false))
})
