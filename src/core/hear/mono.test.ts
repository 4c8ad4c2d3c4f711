import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { MonoMixer } from './mono'

function mixed(stereo: Float32Array, block = stereo.length || 1): Float32Array {
  const blocks: Float32Array[] = []
  const mixer = new MonoMixer((one) => blocks.push(one))
  for (let at = 0; at < stereo.length; at += block) mixer.push(stereo.subarray(at, at + block))
  mixer.finish()
  return Float32Array.from(blocks.flatMap((one) => [...one]))
}
const wave = (frames: number): Float32Array => Float32Array.from({ length: frames }, (_, at) => 0.3 * Math.sin(at / 7))
const stereo = (left: Float32Array, right: Float32Array): Float32Array =>
  left.reduce(
    (both, sample, at) => {
      both[2 * at] = sample
      both[2 * at + 1] = right[at] ?? 0
      return both
    },
    new Float32Array(2 * left.length),
  )

describe('two channels into one', () => {
  const sound = wave(9000)
  it.each([
    ['the same twice', sound, 1],
    ['one upside down', sound.map((sample) => -sample), 1],
    ['one silent', new Float32Array(9000), 0.5],
  ])('%s sounds', (_, right, gain) => {
    const out = mixed(stereo(sound, right))
    expect(out).toHaveLength(9000)
    out.forEach((sample, at) => expect(sample).toBeCloseTo(gain * (sound[at] ?? 0), 5))
  })
  it('is the same however the sound comes in, and loses no whole frame', () => {
    fc.assert(
      fc.property(fc.nat({ max: 20_000 }), fc.integer({ min: 1, max: 5000 }), (length, block) => {
        const samples = wave(length)
        const out = mixed(samples, block)
        expect(out).toHaveLength(Math.floor(length / 2))
        expect(out).toEqual(mixed(samples))
      }),
      { numRuns: 30 },
    )
  })
})
