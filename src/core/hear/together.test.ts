// Two recordings of one room, and two that only have a timer in common. Sound is made here: noise in the rhythm of
// syllables for a voice, tones for a timer, noise of their own for each microphone.
import { describe, expect, it } from 'vitest'
import { PeakGatherer, PEAKS_RATE, type PeakLevel } from './peaks'
import { together } from './together'

/** 0 to 1, the same for one seed. */
function random(seed: number): () => number {
  let state = seed
  return () => {
    state = (state * 1_664_525 + 1_013_904_223) % 4_294_967_296
    return state / 4_294_967_296
  }
}

/** How loud a voice is, every 50 ms. */
function voice(seconds: number, seed: number): Float32Array {
  const dice = random(seed)
  let level = 0
  return Float32Array.from({ length: seconds * 20 }, () => {
    level = dice() < 0.35 ? dice() * 0.3 : level * 0.7
    return level
  })
}

interface Microphone {
  fromS: number
  seconds: number
  gain: number
  noise: number
  seed: number
  ppm?: number
}

const BEEPS_S = Array.from({ length: 40 }, (_, at) => 5 + at * 15)

function recorded(said: Float32Array, { fromS, seconds, gain, noise, seed, ppm = 0 }: Microphone): PeakLevel[] {
  const gatherer = new PeakGatherer()
  const dice = random(seed),
    tone = random(7)
  const carrier = Float32Array.from({ length: 4096 }, () => 2 * tone() - 1)
  const total = Math.round(seconds * PEAKS_RATE)
  for (let from = 0; from < total; from += PEAKS_RATE) {
    const block = new Float32Array(Math.min(PEAKS_RATE, total - from))
    for (let at = 0; at < block.length; at++) {
      const t = fromS + ((from + at) / PEAKS_RATE) * (1 + ppm / 1e6)
      const beep = t % 15 >= 5 && t % 15 < 5.3 ? 0.2 * Math.sin(2 * Math.PI * 1500 * t) : 0
      const loud = said[Math.floor(t * 20)] ?? 0
      block[at] = gain * (loud * (carrier[Math.floor(t * PEAKS_RATE) % 4096] ?? 0) + beep) + noise * (2 * dice() - 1)
    }
    gatherer.push(block)
  }
  return gatherer.finish()
}

const beepsFrom = (fromS: number): number[] => BEEPS_S.map((s) => (s - fromS) * 1000).filter((ms) => ms > -1000)
const said = voice(400, 3)
const main = recorded(said, { fromS: 20, seconds: 240, gain: 1, noise: 0.01, seed: 11 })

describe('two recordings of one sound', () => {
  it.each([
    ['begun later, farther away, in its own noise', { fromS: 47.3214, seconds: 180, gain: 0.3, noise: 0.01, seed: 12 }],
    ['begun earlier', { fromS: 3.0047, seconds: 200, gain: 0.6, noise: 0.02, seed: 13 }],
    ['by a clock that runs slower', { fromS: 30, seconds: 220, gain: 0.8, noise: 0.01, seed: 14, ppm: 80 }],
  ])('are laid over each other to 5 ms where the other was %s', (_, microphone) => {
    const found = together(
      { peaks: main, tonesMs: beepsFrom(20) },
      { peaks: recorded(said, microphone), tonesMs: beepsFrom(microphone.fromS) },
    )
    const trueMs = (microphone.fromS - 20) * 1000
    for (const ms of [20_000, 90_000, 160_000]) {
      const there = trueMs + ms * (1 + ((microphone as Microphone).ppm ?? 0) / 1e6)
      expect(Math.abs((found?.atMs ?? NaN) + ms * (1 + (found?.driftPpm ?? 0) / 1e6) - there)).toBeLessThanOrEqual(5)
    }
  })
  it('is the same file encoded twice, too', () => {
    expect(together({ peaks: main }, { peaks: main })).toMatchObject({ atMs: expect.closeTo(0, 2) as number, agree: 1 })
  })
})

describe('two recordings that are not of one sound', () => {
  const other = recorded(voice(400, 5), { fromS: 20, seconds: 240, gain: 1, noise: 0.01, seed: 21 })
  it('have nothing in common by their timer alone', () => {
    expect(together({ peaks: main, tonesMs: beepsFrom(20) }, { peaks: other, tonesMs: beepsFrom(20) })).toBeNull()
  })
  it('have nothing in common where one is silent, short or not there', () => {
    const still = recorded(new Float32Array(0), { fromS: 0, seconds: 60, gain: 0, noise: 0.001, seed: 22 })
    expect(together({ peaks: main }, { peaks: still })).toBeNull()
    const short = recorded(said, { fromS: 40, seconds: 8, gain: 1, noise: 0, seed: 23 })
    expect(together({ peaks: main }, { peaks: short })).toBeNull()
    expect(together({ peaks: [] }, { peaks: main })).toBeNull()
  })
})
