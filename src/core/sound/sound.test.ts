import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { SOUNDS } from '../cue/cue'
import { FAMILIES, soundMs, soundOf } from './families'
import { FAMILY_NAMES } from './families/names'
import { Limiter } from './limiter'
import { energiesOf, gainOf, integrated, levelOf, loudestStep, LoudnessMeter, stepsOf } from './loudness'
import { CUE_LUFS, duckedSteps, duckingFor, gainsFor, GainWalk, MIX_RATE, USUAL_MIX } from './mix'
import { cueSteps, CueTrack } from './track'
import { truePeakOf } from './truePeak'
import { spokenLine, tone } from './voiced'

const RATE = MIX_RATE
const sine = (hz: number, seconds: number, level = 1, rate = RATE): Float32Array =>
  Float32Array.from({ length: Math.round(seconds * rate) }, (_, at) => level * Math.sin((2 * Math.PI * hz * at) / rate))

describe('loudness by ITU-R BS.1770', () => {
  it('is -3.01 LUFS for a full sine of 997 Hz in one channel, at any rate', () => {
    for (const rate of [48_000, 44_100, 96_000])
      expect(integrated(energiesOf(sine(997, 5, 1, rate), rate))).toBeCloseTo(-3.01, 1)
  })
  it('hears low tones less and high ones more', () => {
    const at = (hz: number): number => integrated(energiesOf(sine(hz, 3), RATE)) ?? 0
    expect(at(30)).toBeLessThan(at(997) - 8)
    expect(at(5000) - at(997)).toBeCloseTo(3.3, 0)
  })
  it('passes over silence and what is far below the rest', () => {
    const loud = sine(997, 4, 0.1)
    const padded = new Float32Array(loud.length * 3)
    padded.set(loud, loud.length)
    padded.set(sine(997, 4, 0.002), loud.length * 2)
    expect(integrated(energiesOf(padded, RATE))).toBeCloseTo(-23.01, 0)
    expect(integrated(energiesOf(new Float32Array(RATE), RATE))).toBeNull()
  })
  it('is the same however the sound is cut into blocks, and channels add up', () => {
    const whole = sine(440, 1.234)
    const meter = new LoudnessMeter(RATE, 1)
    for (let at = 0; at < whole.length; at += 777) meter.add(whole.subarray(at, at + 777))
    expect(meter.finish()).toEqual(stepsOf(whole, RATE))
    const both = Float32Array.from({ length: whole.length * 2 }, (_, at) => whole[at >> 1] ?? 0)
    const doubled = integrated(energiesOf(both, RATE, 2)) ?? 0
    expect(doubled - (integrated(energiesOf(whole, RATE)) ?? 0)).toBeCloseTo(3.01, 1)
  })
})

describe('a true peak', () => {
  it('is found between samples', () => {
    // A quarter of the rate, an eighth of a turn off: no sample is higher than 0.707.
    const tuned = Float32Array.from({ length: 4800 }, (_, at) => Math.sin((Math.PI / 2) * at + Math.PI / 4))
    expect(Math.max(...tuned)).toBeCloseTo(Math.SQRT1_2, 3)
    expect(truePeakOf(tuned)).toBeCloseTo(1, 1)
  })
})

describe('the limiter', () => {
  const limited = (samples: Float32Array, ceiling: number, block: number, channels = 1): Float32Array => {
    const limiter = new Limiter(RATE, channels, ceiling)
    const parts: Float32Array[] = []
    for (let at = 0; at < samples.length; at += block) parts.push(limiter.limit(samples.subarray(at, at + block)))
    parts.push(limiter.finish())
    const all = Float32Array.from(parts.flatMap((part) => [...part]))
    return all.subarray(limiter.latency * channels)
  }
  it('leaves what is below its ceiling as it is, sample by sample', () => {
    const quiet = sine(700, 0.3, 0.5)
    expect([...limited(quiet, 0.9, 1000)]).toEqual([...quiet])
  })
  it('keeps any sound below its ceiling, between samples too, in any blocks', () => {
    const burst = fc.tuple(
      fc.integer({ min: 0, max: 9000 }),
      fc.integer({ min: 1, max: 400 }),
      fc.double({ min: 0.1, max: 4, noNaN: true }),
    )
    fc.assert(
      fc.property(fc.array(burst, { maxLength: 6 }), fc.integer({ min: 200, max: 15_000 }), (bursts, hz) => {
        const samples = sine(hz, 0.2, 0.3)
        for (const [from, length, level] of bursts)
          for (let at = from; at < Math.min(samples.length, from + length); at++)
            samples[at] = (samples[at] ?? 0) * level * 3
        const out = limited(samples, 0.8, 1234)
        expect(out.length).toBe(samples.length)
        expect(truePeakOf(out)).toBeLessThan(0.8 * gainOf(0.35))
      }),
      { numRuns: 30 },
    )
  })
  it('comes back after a peak, and keeps both channels together', () => {
    const both = new Float32Array(2 * RATE)
    for (let at = 0; at < RATE; at++) {
      both[2 * at] = 0.4 * Math.sin(at / 20)
      both[2 * at + 1] = at > 10_000 && at < 10_200 ? 1.6 * Math.sin(at / 9) : 0.1
    }
    const out = limited(both, 0.8, 4800, 2)
    const at = 10_150
    expect((out[2 * at] ?? 0) / (both[2 * at] ?? 1)).toBeLessThan(0.6)
    expect((out[2 * 47_000] ?? 0) / (both[2 * 47_000] ?? 1)).toBeGreaterThan(0.98)
  })
})

describe('a family of sounds', () => {
  describe.each(FAMILY_NAMES)('%s', (family) => {
    it.each(SOUNDS)('%s begins and ends without a click', (sound) => {
      const samples = soundOf(family, sound, RATE)
      expect(samples.length).toBe(Math.round((soundMs(family, sound) * RATE) / 1000))
      const highest = Math.max(...samples.map(Math.abs))
      expect(highest).toBeCloseTo(0.5, 5)
      for (const edge of [samples.subarray(0, 10), samples.subarray(-10)])
        expect(Math.max(...edge.map(Math.abs))).toBeLessThan(0.02)
      // A click is a corner: a step of the slope that no partial of the sound itself has.
      expect(loudestAbove(8000, samples)).toBeLessThan(gainOf(-38))
    })
    it('is told apart by rhythm: no two have their notes at the same times', () => {
      const rhythms = SOUNDS.map((sound) =>
        FAMILIES[family].notes[sound].map(({ atMs, lengthMs, toHz }) => [atMs, lengthMs, toHz === undefined]).join(';'),
      )
      expect(new Set(rhythms).size).toBe(SOUNDS.length)
    })
    it('is as loud in all its sounds', () => {
      for (const sound of SOUNDS)
        expect(loudestStep(energiesOf(tone(family, sound, RATE), RATE))).toBeCloseTo(CUE_LUFS, 1)
    })
  })
})

/** The share of a sound's level that lies above a pitch, by a high-pass of second order run twice. */
function loudestAbove(hz: number, samples: Float32Array): number {
  const k = Math.tan((Math.PI * hz) / RATE)
  const norm = 1 / (1 + Math.SQRT2 * k + k * k)
  let out = samples
  for (let pass = 0; pass < 2; pass++) {
    const from = out
    const next = new Float32Array(from.length)
    for (let at = 0; at < from.length; at++)
      next[at] =
        norm * ((from[at] ?? 0) - 2 * (from[at - 1] ?? 0) + (from[at - 2] ?? 0)) -
        norm * (2 * (k * k - 1) * (next[at - 1] ?? 0) + (1 - Math.SQRT2 * k + k * k) * (next[at - 2] ?? 0))
    out = next
  }
  return Math.max(...out.map(Math.abs)) / Math.max(...samples.map(Math.abs))
}

describe('a line', () => {
  it('loses the silence around it and is as loud as every other', () => {
    const said = new Float32Array(3 * RATE)
    said.set(sine(300, 1, 0.02), RATE)
    const line = spokenLine(said, RATE)
    expect(line.length / RATE).toBeCloseTo(1.05, 1)
    expect(integrated(energiesOf(line, RATE))).toBeCloseTo(CUE_LUFS, 0)
    expect(spokenLine(new Float32Array(RATE), RATE)).toHaveLength(0)
  })
})

describe('the mix', () => {
  it('goes down under lines, and stays down where they follow closely', () => {
    const points = duckingFor(
      [
        { atMs: 1000, lengthMs: 1000 },
        { atMs: 2300, lengthMs: 500 },
        { atMs: 9000, lengthMs: 500 },
      ],
      6,
    )
    const gains = [0, 900, 1000, 2000, 2200, 2500, 2800, 3300, 8000, 9100, 12_000].map((ms) =>
      new GainWalk(points).gainAt(ms),
    )
    const low = gainOf(-6)
    expect(gains.map((gain) => Math.round(gain * 100) / 100)).toEqual(
      [1, 0.92, low, low, low, low, low, 1, 1, low, 1].map((gain) => Math.round(gain * 100) / 100),
    )
    expect(duckingFor([{ atMs: 0, lengthMs: 100 }], 0)).toEqual([])
  })
  it('brings the whole to what was asked for, and cues as far over the coach', () => {
    const film = stepsOf(sine(400, 20, 0.05), RATE)
    const coach = integrated(film.energy) ?? 0
    const silent = stepsOf(new Float32Array(20 * RATE), RATE)
    const ducked = duckedSteps([], 20_000)
    const gains = gainsFor({ film, cues: silent, ducked }, { ...USUAL_MIX, target: 'host', cueLu: 4 })
    expect(coach + levelOf(gains.whole)).toBeCloseTo(-14, 2)
    expect(CUE_LUFS + levelOf(gains.cues)).toBeCloseTo(coach + 4, 2)
    expect(gainsFor({ film, cues: silent, ducked }, { ...USUAL_MIX, target: 'asIs' }).whole).toBe(1)
    expect(gainsFor({ film, cues: silent, ducked }, { ...USUAL_MIX, cuesOn: false }).cues).toBe(0)
    expect(gainsFor({ film: null, cues: silent, ducked }, USUAL_MIX).whole).toBe(1)
  })
  it('is raised by more where the limiter takes some of it away', () => {
    const film = stepsOf(sine(400, 20, 0.05), RATE)
    const peaky = { energy: film.energy, peak: film.peak.map((one, at) => (at % 17 ? one : 0.9)) }
    const cues = stepsOf(new Float32Array(20 * RATE), RATE)
    const plain = gainsFor({ film, cues, ducked: new Float32Array() }, USUAL_MIX).whole
    const limited = gainsFor({ film: peaky, cues, ducked: new Float32Array() }, USUAL_MIX).whole
    expect(limited).toBeGreaterThan(plain * 1.05)
  })
  it('is reckoned from energies as loud as it then is', () => {
    const cues = Array.from({ length: 30 }, (_, at) => ({
      ...{ id: `${at}`, rule: 'go' as const, segmentId: 'a', atMs: 500 + at * 633, sound: 'go' as const, line: null },
      lengthMs: 520,
    }))
    const heard = () => tone('bell', 'go', RATE)
    const reckoned = integrated(cueSteps(cues, heard, 20_000, RATE).energy)
    const made = integrated(energiesOf(new CueTrack(cues, heard, RATE).next(20 * RATE), RATE))
    expect(Math.abs((reckoned ?? 0) - (made ?? 0))).toBeLessThan(0.2)
  })
})
