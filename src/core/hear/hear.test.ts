import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { packPeaks, PEAK_STEPS, PeakGatherer, unpackPeaks } from './peaks'
import { HEARING_RATE, ToneListener, type Beep } from './tones'

const silence = (seconds: number): Float32Array => new Float32Array(Math.round(seconds * HEARING_RATE))

function addTone(out: Float32Array, atMs: number, hz: number, lengthMs: number, level: number): void {
  const from = Math.round((atMs / 1000) * HEARING_RATE)
  for (let index = 0; index < (lengthMs / 1000) * HEARING_RATE; index++)
    out[from + index] = (out[from + index] ?? 0) + level * Math.sin((2 * Math.PI * hz * index) / HEARING_RATE)
}

function addNoise(out: Float32Array, level: number): void {
  let state = 7
  for (let index = 0; index < out.length; index++) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    out[index] = (out[index] ?? 0) + level * (state / 2 ** 31 - 1)
  }
}

function hear(samples: Float32Array, block = 4096): Beep[] {
  const listener = new ToneListener()
  for (let at = 0; at < samples.length; at += block) listener.push(samples.subarray(at, at + block))
  return listener.finish()
}

describe('hearing tones', () => {
  it.each([520, 880, 1568, 2093, 3300, 4000])('places a tone of %d Hz within 3 ms, in noise', (hz) => {
    const sound = silence(3)
    addNoise(sound, 0.01)
    addTone(sound, 1234.5, hz, 150, 0.2)
    const [beep, ...others] = hear(sound)
    expect(others).toEqual([])
    expect(Math.abs((beep?.atMs ?? 0) - 1234.5)).toBeLessThan(3)
    expect(Math.abs((beep?.hz ?? 0) / hz - 1)).toBeLessThan(0.01)
    expect(Math.abs((beep?.durationMs ?? 0) - 150)).toBeLessThan(45)
  })
  it('hears a tone in a room that answers for longer than it lasts, and places its own start', () => {
    const dry = silence(4)
    addTone(dry, 1000, 1870, 300, 0.1)
    const room = Float32Array.from(dry)
    addNoise(room, 0.002)
    // Four reflections that come back again and again, 60 dB down after a second.
    for (const ms of [29.7, 37.1, 41.1, 43.7]) {
      const delay = Math.round((ms / 1000) * HEARING_RATE)
      const back = new Float32Array(dry.length)
      for (let index = delay; index < dry.length; index++) {
        back[index] = (dry[index - delay] ?? 0) + 10 ** ((-3 * ms) / 1000) * (back[index - delay] ?? 0)
        room[index] = (room[index] ?? 0) + 0.25 * (back[index] ?? 0)
      }
    }
    const [beep] = hear(room)
    expect(Math.abs((beep?.atMs ?? 0) - 1000)).toBeLessThan(5)
    expect(Math.abs((beep?.hz ?? 0) / 1870 - 1)).toBeLessThan(0.01)
  })
  it('hears a count of four apart, whatever the size of the blocks', () => {
    const sound = silence(6)
    for (const atMs of [1000, 2000, 3000]) addTone(sound, atMs, 1500, 80, 0.3)
    addTone(sound, 4000, 2000, 400, 0.3)
    const whole = hear(sound)
    expect(whole.map((beep) => Math.round(beep.atMs / 10) * 10)).toEqual([1000, 2000, 3000, 4000])
    expect(hear(sound, 777)).toEqual(whole)
  })
  it('hears nothing in silence, in noise, or in a pitch that slides like a voice', () => {
    expect(hear(silence(2))).toEqual([])
    const noise = silence(3)
    addNoise(noise, 0.3)
    expect(hear(noise)).toEqual([])
    const slide = silence(2).map(
      (_, index) => 0.3 * Math.sin(2 * Math.PI * (700 + 300 * (index / HEARING_RATE)) * (index / HEARING_RATE)),
    )
    expect(hear(slide)).toEqual([])
  })
})

describe('peaks', () => {
  it('keep the extremes at every level', () => {
    const samples = silence(10)
    samples[50_000] = 0.9
    samples[50_001] = -0.7
    const gatherer = new PeakGatherer()
    gatherer.push(samples)
    for (const { step, pairs } of gatherer.finish()) {
      const at = Math.floor(50_000 / step) * 2
      expect([pairs[at], pairs[at + 1]]).toEqual([-89, 114])
      expect(pairs).toHaveLength(Math.ceil(samples.length / step) * 2)
    }
  })
  it('come back the same after packing', () => {
    fc.assert(
      fc.property(fc.float32Array({ min: -1, max: 1, noNaN: true, maxLength: 5000 }), (samples) => {
        const gatherer = new PeakGatherer()
        gatherer.push(samples)
        const levels = gatherer.finish()
        expect(unpackPeaks(packPeaks(levels))).toEqual(levels)
        expect(levels).toHaveLength(PEAK_STEPS.length)
      }),
    )
  })
})
