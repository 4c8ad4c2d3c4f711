import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { RULES, SOUNDS, type LineWish, type ToneWish } from './cue'
import { schedule, type Asked, type Ear } from './schedule'

const ear = (change: Partial<Ear> = {}): Ear => ({
  soundMs: () => 200,
  // 100 ms for each letter.
  lineMs: (line) => line.length * 100,
  canSay: () => true,
  coach: [],
  timer: [],
  ...change,
})
const line = (id: string, change: Partial<Asked<LineWish>> = {}): Asked<LineWish> => ({
  ...{ id, rule: 'next', key: 'said', segmentId: 'a', priority: 50, muted: false },
  ...{ lines: ['ten letter', 'five.'], atMs: 1000, fromMs: 1000, untilMs: 5000 },
  ...change,
})
const tone = (id: string, atMs: number, change: Partial<Asked<ToneWish>> = {}): Asked<ToneWish> => ({
  ...{ id, rule: 'go', key: '', segmentId: 'a', priority: 100, muted: false, sound: 'go', atMs },
  ...change,
})
const told = (asked: readonly Asked[], change: Partial<Ear> = {}): string[] => {
  const { cues, findings } = schedule(asked, ear(change))
  return [
    ...cues.map(({ id, atMs, line: said }) => `${id} ${atMs}${said === null ? '' : ` ${said}`}`),
    ...findings.map(({ id, why }) => `${id} ${why}`),
  ]
}

describe('the scheduler', () => {
  it('says a line in full where it is best begun', () => expect(told([line('a')])).toEqual(['a 1000 ten letter']))
  it('lets what matters more go first, and moves the other within its window', () => {
    expect(told([line('low', { priority: 10 }), line('high')])).toEqual(['high 1000 ten letter', 'low 2200 ten letter'])
  })
  it('says less where there is too little time for all of it', () => {
    expect(told([line('a', { untilMs: 1700 })])).toEqual(['a 1000 five.'])
  })
  it('leaves out what does not fit at all, and says so', () => {
    expect(told([line('a', { untilMs: 1300 })])).toEqual(['a noTime'])
    expect(told([line('a', { untilMs: 2100 }), line('b', { untilMs: 2100, priority: 1 })])).toEqual([
      'a 1000 ten letter',
      'b crowded',
    ])
  })
  it('keeps lines off the coach, and off tones', () => {
    expect(told([line('a')], { coach: [{ fromMs: 900, untilMs: 2000 }] })).toEqual(['a 2000 ten letter'])
    expect(told([line('a')], { coach: [{ fromMs: 0, untilMs: 5000 }] })).toEqual(['a coachSpeaks'])
    expect(told([line('a'), tone('t', 1500)])).toEqual(['t 1500', 'a 1700 ten letter'])
  })
  it('keeps tones at their instants: of two that meet, one is left out', () => {
    expect(told([tone('a', 1000), tone('b', 1200, { priority: 50 })])).toEqual(['a 1000', 'b crowded'])
  })
  it('leaves out pips that the coach’s own timer counts, which is no loss', () => {
    const pip = (id: string, atMs: number): Asked => tone(id, atMs, { sound: 'pip' })
    expect(told([pip('a', 1000), pip('b', 2000)], { timer: [1300] })).toEqual(['b 2000'])
  })
  it('says only what was recorded, in the longest wording that was', () => {
    expect(told([line('a')], { canSay: (said) => said === 'five.' })).toEqual(['a 1000 five.'])
    expect(told([line('a')], { canSay: () => false })).toEqual(['a unrecorded'])
  })
  it('tells what was silenced apart', () => {
    const { cues, muted } = schedule([line('a', { muted: true }), tone('b', 0)], ear())
    expect([cues.map(({ id }) => id), muted.map(({ id }) => id)]).toEqual([['b'], ['a']])
  })

  const ms = fc.integer({ min: 0, max: 60_000 })
  const asked = fc
    .array(
      fc.record({
        isTone: fc.boolean(),
        atMs: ms,
        earlier: fc.integer({ min: 0, max: 3000 }),
        later: fc.integer({ min: 0, max: 8000 }),
        letters: fc.integer({ min: 3, max: 40 }),
        priority: fc.integer({ min: 1, max: 5 }),
        sound: fc.constantFrom(...SOUNDS),
        rule: fc.constantFrom(...RULES),
      }),
      { maxLength: 40 },
    )
    .map((all) =>
      all.map(({ isTone, atMs, earlier, later, letters, priority, sound, rule }, at): Asked => {
        const lines = ['x'.repeat(letters), 'x'.repeat(Math.ceil(letters / 2))]
        return isTone
          ? tone(`${at}`, atMs, { priority, sound, rule })
          : line(`${at}`, { lines, priority, rule, atMs, fromMs: Math.max(0, atMs - earlier), untilMs: atMs + later })
      }),
    )
  const coach = fc.array(fc.tuple(ms, fc.integer({ min: 1, max: 4000 })), { maxLength: 12 }).map((all) => {
    let atMs = 0
    return all.map(([gap, length]) => {
      const fromMs = atMs + (gap % 6000) + 1
      atMs = fromMs + length
      return { fromMs, untilMs: atMs }
    })
  })
  it('never has two lines at once, none late, none over the coach or a tone, and tells of each that is dropped', () => {
    fc.assert(
      fc.property(asked, coach, (all, busy) => {
        const { cues, findings } = schedule(all, ear({ coach: busy }))
        const lines = cues.filter((cue) => cue.line !== null)
        lines.forEach((one, at) => {
          const next = lines[at + 1]
          if (next) expect(one.atMs + one.lengthMs).toBeLessThanOrEqual(next.atMs)
          const wish = all.find(({ id }) => id === one.id) as LineWish
          expect(one.atMs).toBeGreaterThanOrEqual(wish.fromMs)
          expect(one.atMs + one.lengthMs).toBeLessThanOrEqual(wish.untilMs)
          for (const { fromMs, untilMs } of busy)
            expect(one.atMs >= untilMs || one.atMs + one.lengthMs <= fromMs).toBe(true)
          for (const sound of cues.filter((cue) => cue.sound !== null))
            expect(one.atMs >= sound.atMs + sound.lengthMs || one.atMs + one.lengthMs <= sound.atMs).toBe(true)
        })
        expect([...cues, ...findings].map(({ id }) => id).sort()).toEqual(all.map(({ id }) => id).sort())
      }),
    )
  })
})
