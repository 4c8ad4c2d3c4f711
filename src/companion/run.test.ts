import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { asPlanned } from '@/core/cut/cut'
import { expand } from '@/core/expand/expand'
import { readShorthand } from '@/core/shorthand/read'
import { Run } from './run'

const runOf = (text: string) => new Run(asPlanned(expand(readShorthand(text).score).segments))
const CIRCUIT = 'circuit Main: 1 round, 20 on, 10 off, last rest kept\n  Jug lift\n  Keel hold\n'

describe('a session without a video', () => {
  it('goes from interval to interval by the clock, and is over', () => {
    const run = runOf(CIRCUIT)
    run.pass(25_000)
    expect([run.now?.segment.kind, run.planMs, run.over]).toEqual(['rest', 25_000, false])
    run.pass(1_000_000)
    expect([run.now, run.over, run.planMs]).toEqual([undefined, true, 60_000])
  })
  it('stands still while it is held', () => {
    const run = runOf(CIRCUIT)
    run.pass(3000)
    run.hold(true)
    run.pass(60_000)
    expect(run.planMs).toBe(3000)
    run.hold(false)
    run.pass(1000)
    expect(run.planMs).toBe(4000)
  })
  it('waits where nobody knows how long it takes', () => {
    const run = runOf('sets Main: 2 sets, 20 off\n  10 Squat\n')
    expect(run.waits).toBe(true)
    run.pass(10 * 60_000)
    expect(run.now?.segment.kind).toBe('work')
    run.next()
    expect([run.now?.segment.kind, run.waits]).toEqual(['rest', false])
    run.pass(20_000)
    expect([run.now?.segment.set, run.waits]).toEqual([2, true])
  })
  it('goes back to the beginning, and from there to the one before', () => {
    const run = runOf(CIRCUIT)
    run.pass(25_000)
    run.back()
    expect(run.planMs).toBe(20_000)
    run.back()
    expect(run.planMs).toBe(0)
    run.back()
    expect(run.planMs).toBe(0)
  })
  it('is where it would be, however its time comes', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 9000 }), { maxLength: 30 }), (steps) => {
        const one = runOf(CIRCUIT),
          other = runOf(CIRCUIT)
        for (const ms of steps) one.pass(ms)
        other.pass(steps.reduce((sum, ms) => sum + ms, 0))
        expect(one.planMs).toBe(other.planMs)
      }),
    )
  })
})
