// The simulated camera keeps to its score, its faults and its seed.
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { expand } from '../../src/core/expand/expand'
import { readWorkoutFile } from '../../src/core/read/workoutFile'
import { blend, motionOf, poseAt } from './figure'
import { playSession, type Faults } from './session'

const { segments } = expand(readWorkoutFile(readFileSync('demo/deck-hours.jivet.json', 'utf8')))
const PLAIN: Faults = { talksMs: [10_000, 5000], restart: null, driftPpm: 0, silentBeeps: null, beeps: true }

describe('a session', () => {
  it('takes the planned lengths, with talk of its own', () => {
    const { happenings, durationMs } = playSession(segments, PLAIN, 1)
    expect(durationMs).toBe(10_000 + 180_000 + 5000)
    expect(happenings.slice(0, 3).map((one) => one.startMs)).toEqual([0, 10_000, 15_000])
  })
  it('drifts, restarts and falls silent as told', () => {
    const drifted = playSession(segments, { ...PLAIN, driftPpm: 100 }, 1)
    expect(drifted.happenings.at(-1)!.endMs).toBeCloseTo(195_000 * 1.0001, 3)
    expect(
      playSession(segments, { ...PLAIN, restart: { segmentId: 'main/r1/break', extraMs: 3400 } }, 1).durationMs,
    ).toBe(198_400)
    const silent = playSession(segments, { ...PLAIN, silentBeeps: { fromMs: 50_000, toMs: 90_000 } }, 1)
    expect(silent.beeps.some((beep) => beep.atMs >= 50_000 && beep.atMs < 90_000)).toBe(false)
    expect(silent.beeps.length).toBeGreaterThan(10)
    expect(playSession(segments, { ...PLAIN, beeps: false }, 1).beeps).toEqual([])
  })
  it('is the same for the same seed, and says its lines otherwise for another', () => {
    expect(playSession(segments, PLAIN, 5)).toEqual(playSession(segments, PLAIN, 5))
    expect(playSession(segments, PLAIN, 5).lines).not.toEqual(playSession(segments, PLAIN, 6).lines)
  })
  it('beeps three counts and a mark at every change', () => {
    const { beeps, happenings } = playSession(segments, PLAIN, 1)
    const timed = happenings.filter((one) => one.segment.kind !== 'talk')
    expect(beeps).toHaveLength(timed.length * 4 + 1)
    for (const { endMs } of timed)
      expect(beeps.filter((beep) => beep.atMs > endMs - 3001 && beep.atMs <= endMs).length).toBeGreaterThanOrEqual(4)
  })
})

describe('the figure', () => {
  it('moves differently for each move and side, and comes back to where it began', () => {
    const jug = motionOf('work', 'Jug lift', 'left')
    expect(poseAt(jug, 0)).toEqual(poseAt(jug, jug.periodMs))
    expect(poseAt(jug, 0)).not.toEqual(poseAt(motionOf('work', 'Jug lift', 'right'), 0))
    expect(poseAt(motionOf('work', 'Lock-gate push', null), 0).hip).not.toEqual(
      poseAt(motionOf('rest', '', null), 0).hip,
    )
  })
  it('blends from one pose to the other', () => {
    const from = poseAt(motionOf('rest', '', null), 0),
      to = poseAt(motionOf('work', 'Lock-gate push', null), 0)
    expect(blend(from, to, 0)).toEqual(from)
    expect(blend(from, to, 1).head[0]).toBeCloseTo(to.head[0], 9)
  })
})
