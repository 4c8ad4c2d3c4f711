import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expand } from '../expand/expand'
import { readShorthand } from '../shorthand/read'
import type { FloorEvent, FloorEventKind } from './events'
import { elapsedMs, endMsOf, type FloorState } from './machine'
import { runOf, standing, takesOf } from './run'

const planOf = (text: string) => expand(readShorthand(text).score).segments

/** lead 5, lift 20, rest 10, push 20, break 15, lift 20, rest 10, push 20: 120 s */
const TWO_ROUNDS = planOf(
  'circuit Main: 2 rounds, 20 on, 10 off, 15 between, lead 5, last rest dropped\n  Jug lift; Lock-gate push\n',
)

let count = 0
const key = (): string => `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`
const start = (atMs = 0, countInMs = 5000): FloorEvent => ({ kind: 'start', key: key(), atMs, countInMs })
type Bare = 'hold' | 'goOn' | 'next' | 'skip' | 'back' | 'repeat' | 'restartRound' | 'open'
const told = (kind: Bare, atMs: number, on: number): FloorEvent => ({ kind, key: key(), atMs, on })

const at = (events: FloorEvent[], nowMs: number, segments = TWO_ROUNDS): FloorState =>
  runOf(segments, events, nowMs).state
const linesOf = (events: FloorEvent[], nowMs: number, segments = TWO_ROUNDS): string[] =>
  runOf(segments, events, nowMs).stretches.map(
    ({ segmentId, fromMs, toMs, endedBy }) => `${segmentId} ${fromMs / 1000}-${toMs / 1000} ${endedBy}`,
  )

describe('a session on the floor', () => {
  it('counts in, runs by the clock, and ends', () => {
    expect(at([], 9000).phase).toBe('ready')
    expect(at([start()], 4999)).toMatchObject({ phase: 'countingIn', at: 0 })
    expect(at([start()], 5000)).toMatchObject({ phase: 'running', at: 0, fromMs: 5000 })
    expect(at([start()], 30_000)).toMatchObject({ at: 2, fromMs: 30_000 })
    expect(at([start()], 124_999)).toMatchObject({ phase: 'running', at: 7 })
    expect(at([start()], 125_000)).toMatchObject({ phase: 'ended', at: 8 })
    expect(linesOf([start()], 31_000)).toEqual(['main/lead 5-10 clock', 'main/r1/s1/work 10-30 clock'])
  })

  it('is held and goes on: all that follows is later by as much', () => {
    const held = [start(), told('hold', 14_000, 1)]
    expect(at(held, 60_000)).toMatchObject({ phase: 'holding', at: 1 })
    expect(elapsedMs(at(held, 60_000), 60_000)).toBe(4000)
    const wentOn = [...held, told('goOn', 20_000, 1)]
    expect(endMsOf(TWO_ROUNDS, at(wentOn, 21_000))).toBe(36_000)
    expect(runOf(TWO_ROUNDS, wentOn, 40_000).stretches.at(-1)).toMatchObject({
      ...{ fromMs: 10_000, toMs: 36_000, heldMs: 6000, endedBy: 'clock' },
    })
    // Held while counting in, it counts in further.
    const early = [start(), told('hold', 2000, 0), told('goOn', 9000, 0)]
    expect(at(early, 11_999).phase).toBe('countingIn')
    expect(at(early, 12_000)).toMatchObject({ phase: 'running', at: 0 })
  })

  it('skips, goes back, and does things again, counted in', () => {
    expect(linesOf([start(), told('skip', 12_000, 1)], 13_000).at(-1)).toBe('main/r1/s1/work 10-12 skip')
    expect(at([start(), told('skip', 12_000, 1)], 13_000)).toMatchObject({ at: 2, fromMs: 12_000 })
    const back = at([start(), told('back', 42_000, 3)], 44_000)
    expect(back).toMatchObject({ phase: 'countingIn', at: 2 })
    // In the rest, what is done again is the work before it.
    const again = [start(), told('repeat', 35_000, 2)]
    expect(at(again, 38_000)).toMatchObject({ phase: 'countingIn', at: 1 })
    expect(at(again, 41_000)).toMatchObject({ phase: 'running', at: 1, fromMs: 40_000 })
    const round = at([start(), told('restartRound', 90_000, 5)], 95_500)
    expect(round).toMatchObject({ phase: 'running', fromMs: 95_000 })
    expect(TWO_ROUNDS[round.at]?.id).toBe('main/r2/s1/work')
    // Pressed while counting in, skip begins at once.
    expect(at([start(), told('skip', 2000, 0)], 2100)).toMatchObject({ phase: 'running', at: 0, fromMs: 2000 })
  })

  it('opens a break until it is told to go on; nothing but a break', () => {
    const opened = [start(), told('open', 65_000, 4)]
    expect(endMsOf(TWO_ROUNDS, at(opened, 100_000))).toBeNull()
    expect(at(opened, 500_000)).toMatchObject({ at: 4 })
    expect(at([...opened, told('next', 118_000, 4)], 118_500)).toMatchObject({ at: 5, fromMs: 118_000 })
    expect(at([start(), told('open', 15_000, 1)], 16_000).opened).toBe(false)
  })

  it('waits for whoever works at their own pace, and for talk', () => {
    const plan = planOf(
      'talk Welcome: about 10\nsets Main: 2 sets, 1:00 off, 1:30 to change, last rest dropped\n  10 Jug lift\n',
    )
    const own = plan.findIndex(({ pace }) => pace === 'own')
    expect(at([start()], 90_000, plan)).toMatchObject({ at: 0 })
    const through = [start(), told('next', 20_000, 0)]
    expect(at(through, 500_000, plan).at).toBe(own)
    const { fromMs } = at(through, 500_000, plan)
    expect(at([...through, told('next', fromMs + 31_000, own)], fromMs + 31_500, plan)).toMatchObject({
      ...{ at: own + 1, fromMs: fromMs + 31_000 },
    })
  })

  it("goes on with the slot's clock where nobody says when its work was done", () => {
    const plan = planOf('minute-reps Main: 2 rounds\n  12 Jug lift\n')
    const slot = plan.findIndex((segment) => segment.slot?.beforeMs === 0)
    const begun = plan[slot]
    if (!begun?.slot) throw new Error('no slot in this plan')
    const from = 5000 + begun.startMs
    const silent = runOf(plan, [start()], from + 61_000)
    expect(silent.stretches.at(-1)).toMatchObject({ segmentId: begun.id, toMs: from + 60_000, endedBy: 'slot' })
    const done = [start(), told('next', from + 34_000, slot)]
    expect(linesOf(done, from + 61_000, plan).slice(-2)).toEqual([
      `${begun.id} ${from / 1000}-${from / 1000 + 34} next`,
      `${plan[slot + 1]?.id} ${from / 1000 + 34}-${from / 1000 + 60} clock`,
    ])
  })

  it('does not hear what was meant for another segment, or does not fit', () => {
    // Two devices, one press each; and a press as the clock ran out.
    const twice = [start(), told('skip', 12_000, 1), told('skip', 12_200, 1)]
    expect(at(twice, 13_000).at).toBe(2)
    expect(at([start(), told('skip', 30_010, 1)], 30_020)).toMatchObject({ at: 2, fromMs: 30_000 })
    expect(at([start(), told('next', 12_000, 1)], 13_000).at).toBe(1)
    expect(at([start(), told('goOn', 12_000, 1), start(14_000)], 15_000)).toMatchObject({ phase: 'running', at: 1 })
  })
})

describe('what stands of a session', () => {
  const standingOf = (events: FloorEvent[], nowMs: number): string[] =>
    standing(takesOf(runOf(TWO_ROUNDS, events, nowMs).stretches, events)).map(
      ({ segmentId, take, fromMs }) => `${segmentId} take ${take} at ${fromMs / 1000}`,
    )
  const mark = (atMs: number, segmentId: string, value: 'good' | 'again'): FloorEvent => ({
    ...{ kind: 'mark', key: key(), atMs, segmentId, mark: value },
  })

  it('is the last take of each segment', () => {
    const events = [start(), told('repeat', 35_000, 2)]
    expect(standingOf(events, 75_000)).toEqual([
      'main/lead take 1 at 5',
      'main/r1/s1/work take 2 at 40',
      'main/r1/s1/rest take 2 at 60',
    ])
  })

  it('is the one before where the last was broken off or marked', () => {
    const broken = [start(), told('repeat', 35_000, 2), told('skip', 44_000, 1)]
    expect(standingOf(broken, 45_000)).toContain('main/r1/s1/work take 1 at 10')
    const marked = [start(), told('repeat', 35_000, 2), mark(63_000, 'main/r1/s1/work', 'again')]
    expect(standingOf(marked, 65_000)).toContain('main/r1/s1/work take 1 at 10')
    const good = [start(), mark(32_000, 'main/r1/s1/work', 'good'), told('repeat', 35_000, 2)]
    expect(standingOf(good, 65_000)).toContain('main/r1/s1/work take 1 at 10')
  })
})

describe('any session', () => {
  const kinds: readonly FloorEventKind[] = ['hold', 'goOn', 'next', 'skip', 'back', 'repeat', 'restartRound', 'open']
  const anyTold = fc
    .array(fc.record({ kind: fc.constantFrom(...kinds), gapMs: fc.integer({ min: 0, max: 40_000 }), off: fc.nat(1) }), {
      maxLength: 25,
    })
    .map((steps) => {
      const events: FloorEvent[] = [start()]
      let atMs = 0
      for (const { kind, gapMs, off } of steps) {
        atMs += gapMs
        events.push(told(kind as Bare, atMs, runOf(TWO_ROUNDS, events, atMs).state.at + off))
      }
      return { events, endMs: atMs + 300_000 }
    })

  it('is written down without gaps that nobody counted in, and in order', () => {
    fc.assert(
      fc.property(anyTold, ({ events, endMs }) => {
        const { stretches } = runOf(TWO_ROUNDS, events, endMs)
        stretches.forEach(({ fromMs, toMs, heldMs }, index) => {
          expect(toMs).toBeGreaterThanOrEqual(fromMs)
          expect(heldMs).toBeLessThanOrEqual(toMs - fromMs)
          expect(fromMs).toBeGreaterThanOrEqual(stretches[index - 1]?.toMs ?? 0)
        })
      }),
    )
  })

  it('lasts as planned where the clock ends it, without what it was held', () => {
    const planned = new Map(TWO_ROUNDS.map(({ id, durationMs }) => [id, durationMs]))
    fc.assert(
      fc.property(anyTold, ({ events, endMs }) => {
        for (const { segmentId, fromMs, toMs, heldMs, endedBy } of runOf(TWO_ROUNDS, events, endMs).stretches)
          if (endedBy === 'clock') expect(toMs - fromMs - heldMs).toBe(planned.get(segmentId))
      }),
    )
  })

  it('is the same whenever it is asked for, and however its lines arrived', () => {
    fc.assert(
      fc.property(anyTold, fc.nat(), ({ events, endMs }, seed) => {
        const whole = runOf(TWO_ROUNDS, events, endMs)
        const shuffled = events.map((event, index) => ({ event, by: Math.sin(seed + index) }))
        shuffled.sort((one, other) => one.by - other.by)
        expect(
          runOf(
            TWO_ROUNDS,
            shuffled.map(({ event }) => event),
            endMs,
          ),
        ).toEqual(whole)
        // Asked in between, as a page does four times a second, it comes to the same.
        const middle = runOf(TWO_ROUNDS, events, endMs / 2)
        const before = whole.stretches.filter(({ toMs }) => toMs <= endMs / 2)
        expect(middle.stretches.slice(0, before.length)).toEqual(before)
      }),
    )
  })
})
