import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CHIRP_CODES, CHIRP_VOICES, chirpSound, codeword } from '../sound/chirp'
import { ChirpListener, type Chirp } from './chirps'
import { HEARING_RATE } from './tones'

const seconds = (count: number): Float32Array => new Float32Array(Math.round(count * HEARING_RATE))

function hear(sound: Float32Array, block = 3777): Chirp[] {
  const listener = new ChirpListener()
  for (let at = 0; at < sound.length; at += block) listener.push(sound.subarray(at, at + block))
  return listener.finish()
}

function add(into: Float32Array, sound: Float32Array, atSample: number, gain = 1): void {
  sound.forEach((sample, index) => {
    const at = atSample + index
    if (at < into.length) into[at] = (into[at] ?? 0) + gain * sample
  })
}

const noise = (level: number, seed: number): ((index: number) => number) => {
  let state = seed
  return () => {
    state = (state * 1664525 + 1013904223) >>> 0
    return level * Math.sqrt(3) * (state / 2 ** 31 - 1)
  }
}

describe('chirps', () => {
  it('bear numbers of which any two differ in eight places at least', () => {
    fc.assert(
      fc.property(fc.nat(CHIRP_CODES - 1), fc.nat(CHIRP_CODES - 1), (one, other) => {
        fc.pre(one !== other)
        const left = codeword(one),
          right = codeword(other)
        expect(left.filter((bit, at) => bit !== right[at]).length).toBeGreaterThanOrEqual(8)
      }),
    )
  })

  it.each(CHIRP_VOICES)(
    'are heard with their number, to a tenth of a millisecond, however the sound comes in: %s',
    (voice) => {
      fc.assert(
        fc.property(
          fc.nat(CHIRP_CODES - 1),
          fc.integer({ min: 0, max: 40_000 }),
          fc.integer({ min: 1, max: 9000 }),
          (code, at, block) => {
            const sound = seconds(4)
            add(sound, chirpSound(code, voice, HEARING_RATE), at)
            const [chirp, ...others] = hear(sound, block)
            expect(others).toEqual([])
            expect(chirp?.code).toBe(code)
            expect(Math.abs((chirp?.atMs ?? 0) - (at / HEARING_RATE) * 1000)).toBeLessThan(0.1)
          },
        ),
        { numRuns: 6 },
      )
    },
  )

  it('are heard 10 dB below noise', () => {
    const sound = seconds(8).map(noise(0.25 / Math.SQRT2, 7))
    const softly = 10 ** (-10 / 20)
    const codes = [3, 1234, 4095]
    codes.forEach((code, index) =>
      add(sound, chirpSound(code, 'plain', HEARING_RATE), (1 + 2 * index) * HEARING_RATE, softly),
    )
    const heard = hear(sound)
    expect(heard.map(({ code }) => code)).toEqual(codes)
    heard.forEach(({ atMs }, index) => expect(Math.abs(atMs - (1 + 2 * index) * 1000)).toBeLessThan(1))
  })

  it('are not heard where there is only noise, a sweep or a tone', () => {
    const sound = seconds(30).map(noise(0.3, 11))
    const tone = Float32Array.from({ length: 30 * HEARING_RATE }, (_, index) => 0.3 * Math.sin(index * 0.9))
    const sweep = Float32Array.from(
      { length: HEARING_RATE },
      (_, index) => 0.3 * Math.sin(0.2 * index + 4e-5 * index ** 2),
    )
    add(sound, tone, 0)
    for (let at = 0; at < 30; at += 2) add(sound, sweep, at * HEARING_RATE)
    expect(hear(sound)).toEqual([])
  })
})
