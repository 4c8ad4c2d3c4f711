import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { soundingIn } from './sounding'

const STEP_MS = 40
/** Speech in the first number, music in the second. */
const chances = (speech: readonly number[], music: readonly number[] = []): Float32Array =>
  Float32Array.from({ length: 2 * speech.length }, (_, at) => (at % 2 ? (music[at >> 1] ?? 0) : (speech[at >> 1] ?? 0)))
const steps = (count: number, chance: number): number[] => new Array<number>(count).fill(chance)

describe('speech and music', () => {
  it('go on over short gaps, and end where they end', () => {
    const [one, other, ...more] = soundingIn(
      chances([
        ...steps(10, 0),
        ...steps(20, 0.9),
        ...steps(5, 0.1),
        ...steps(10, 0.8),
        ...steps(30, 0),
        ...steps(9, 1),
      ]),
      STEP_MS,
    )
    expect(one).toMatchObject({ kind: 'speech', atMs: 400, durationMs: 35 * STEP_MS })
    expect(other).toMatchObject({ kind: 'speech', atMs: 75 * STEP_MS, durationMs: 9 * STEP_MS })
    expect(more).toEqual([])
  })
  it('are told apart, and what is too short is neither', () => {
    const found = soundingIn(chances(steps(100, 0), [...steps(80, 0.7), ...steps(20, 0)]), STEP_MS)
    expect(found).toMatchObject([{ kind: 'music', atMs: 0, durationMs: 3200 }])
    expect(soundingIn(chances([...steps(3, 0.9), ...steps(50, 0)]), STEP_MS)).toEqual([])
  })
  it('never overlap themselves, and stay within the recording', () => {
    const chance = fc.double({ min: 0, max: 1, noNaN: true })
    fc.assert(
      fc.property(fc.array(chance, { maxLength: 200 }), (speech) => {
        let untilMs = 0
        for (const { atMs, durationMs, strength } of soundingIn(chances(speech), STEP_MS)) {
          expect(atMs).toBeGreaterThanOrEqual(untilMs)
          untilMs = atMs + durationMs
          expect(strength).toBeGreaterThan(0)
        }
        expect(untilMs).toBeLessThanOrEqual(speech.length * STEP_MS)
      }),
    )
  })
})
