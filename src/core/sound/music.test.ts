import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { asPlanned } from '../cut/cut'
import { expand } from '../expand/expand'
import { readShorthand } from '../shorthand/read'
import { energyOf, integrated, PEAKS_A_STEP, type Steps } from './loudness'
import { duckedSteps, duckingFor, gainsFor, USUAL_MIX } from './mix'
import { bedOf, bedSteps, fadeAt, saidIn } from './music'

const laneOf = (text: string) => asPlanned(expand(readShorthand(text).score).segments)
const CIRCUIT = 'circuit Main: 2 rounds, 40 on, 20 off, 50 between, lead 5\n  Jug lift\n  Keel hold\n'
const WHOLE = laneOf(`talk Hello: about 20\n${CIRCUIT}talk Bye: about 15\n`)

describe('a bed of music', () => {
  it('begins with the session and ends with it, and is silent in talk', () => {
    const parts = bedOf(WHOLE, [10 * 60_000])
    const [first] = WHOLE.filter(({ segment }) => segment.kind !== 'talk')
    expect(parts).toEqual([
      { piece: 0, outMs: first!.startMs, lengthMs: WHOLE.at(-1)!.startMs - first!.startMs, fades: true },
    ])
    expect(
      [0, 19_999, 20_000, WHOLE.at(-1)!.startMs - 10, WHOLE.at(-1)!.startMs].map((ms) => fadeAt(parts, ms)),
    ).toEqual([0, 0, 1, expect.closeTo(0, 3), 0])
  })
  it('has one piece after the other, each from its beginning on a change', () => {
    const parts = bedOf(WHOLE, [70_000, 100_000])
    const changes = new Set(WHOLE.map(({ startMs }) => startMs))
    expect(parts.map(({ piece }) => piece)).toEqual(parts.map((_, at) => at % 2))
    expect(parts.length).toBeGreaterThan(2)
    for (const { outMs } of parts) expect(changes).toContain(outMs)
  })
  it('plays over a word, and begins anew after a talk', () => {
    const talked = laneOf(
      `${CIRCUIT}talk Short: about 2\n${CIRCUIT.replace('Main', 'More')}talk Long: about 9\nstraight Last: 40 on\n  Squat\n`,
    )
    const parts = bedOf(talked, [60 * 60_000])
    expect(parts).toHaveLength(2)
    expect(parts[1]!.outMs).toBe(talked.at(-1)!.startMs)
  })
  it('never lies over itself, over long talk or beyond the end, whatever the pieces', () => {
    const piece = fc.integer({ min: 1000, max: 400_000 })
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 5 }), (pieces) => {
        const parts = bedOf(WHOLE, pieces)
        parts.forEach(({ piece: index, outMs, lengthMs, fades }, at) => {
          expect(lengthMs).toBeGreaterThan(0)
          expect(lengthMs).toBeLessThanOrEqual(pieces[index]!)
          expect(fades).toBe(lengthMs < pieces[index]!)
          expect(outMs + lengthMs).toBeLessThanOrEqual(parts[at + 1]?.outMs ?? WHOLE.at(-1)!.startMs)
        })
        expect(parts.length > 0).toBe(pieces.length > 0)
      }),
    )
  })
})

/** A sound of one loudness from beginning to end. */
const steady = (lufs: number, seconds: number): Steps => ({
  energy: new Float32Array(seconds * 10).fill(energyOf(lufs)),
  peak: new Float32Array(seconds * 10 * PEAKS_A_STEP).fill(0.2),
})
const SILENT = { energy: new Float32Array(0), peak: new Float32Array(0) }

describe('its level', () => {
  const seconds = Math.ceil(WHOLE.at(-1)!.endMs / 1000)
  const parts = bedOf(WHOLE, [400_000, 400_000])
  const heard = (pieces: (Steps | null)[]) => bedSteps(parts, pieces, seconds * 1000)
  it('is so much below the coach, however loud each piece is', () => {
    const mix = { ...USUAL_MIX, target: 'asIs' as const, music: { pieces: [], lu: -9 } }
    for (const lufs of [-8, -30]) {
      const bed = heard([steady(lufs, 400), steady(lufs, 400)])!
      const { music } = gainsFor({ film: steady(-22, seconds), cues: SILENT, ducked: new Float32Array(0), bed }, mix)
      const middle = bed.energy.slice(400, 800).map((energy) => energy * music ** 2)
      expect(integrated(middle)).toBeCloseTo(-31, 1)
    }
  })
  it('counts in the loudness of the whole', () => {
    const bed = heard([steady(-20, 400), null])!
    const under = { film: steady(-22, seconds), cues: SILENT, ducked: new Float32Array(0) }
    const loud = { ...USUAL_MIX, music: { pieces: [], lu: 0 } }
    const [without, withIt] = [gainsFor(under, loud).whole, gainsFor({ ...under, bed }, loud).whole]
    // Twice the energy is three decibels, for as long as it plays.
    expect(20 * Math.log10(without / withIt)).toBeGreaterThan(2.3)
    expect(20 * Math.log10(without / withIt)).toBeLessThan(3.1)
  })
  it('of cues is the same against a coach on two channels', () => {
    const under = { film: steady(-22, seconds), cues: SILENT, ducked: new Float32Array(0) }
    const gain = (channels: 1 | 2) => gainsFor({ ...under, channels }, { ...USUAL_MIX, target: 'asIs' }).cues
    // The cue sounds on both, which is three decibels more of it.
    expect(20 * Math.log10(gain(1) / gain(2))).toBeCloseTo(3.01, 2)
  })
  it('is none where no piece has come', () => {
    expect(heard([null, null])).toBeNull()
    expect(bedSteps([], [steady(-20, 3)], 3000)).toBeNull()
  })
  it('goes down under what a voice says and under the coach, once where both follow closely', () => {
    const said = saidIn(
      [{ atMs: 9000, lengthMs: 1000 }],
      [
        { fromMs: 2000, untilMs: 5000 },
        { fromMs: 4000, untilMs: 6000 },
      ],
    )
    expect(said).toEqual([
      { atMs: 2000, lengthMs: 4000 },
      { atMs: 9000, lengthMs: 1000 },
    ])
    const ducked = duckedSteps(duckingFor(said, 12), 12_000)
    expect([10, 40, 75, 95, 115].map((step) => Math.round(20 * Math.log10(ducked[step]!)))).toEqual([0, -12, 0, -12, 0])
  })
})
