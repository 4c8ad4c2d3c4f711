// What every listener holds to, whatever the sound: each new one gets a line in the list.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CallListener, type CallModel } from './calls'
import { MEL_BANDS, MelListener } from './mel'
import { PeakGatherer } from './peaks'
import { HEARING_RATE, ToneListener } from './tones'

interface Listener {
  push: (block: Float32Array) => void
  finish: () => unknown
}
const bandsOf = (): Listener => {
  const frames: number[] = []
  const listener = new MelListener((frame) => frames.push(...frame))
  return { push: (block) => listener.push(block), finish: () => frames }
}
/** A network that nobody trained hears something too, and the same whenever it is asked. */
const layer = (kind: CallModel[number]['kind'], shape: Omit<CallModel[number], 'kind' | 'weights' | 'biases'>) => ({
  ...{ kind, ...shape },
  weights: Float32Array.from({ length: shape.out * shape.in * shape.kernel }, (_, at) => Math.sin(at * at)),
  biases: new Float32Array(shape.out),
})
const ANY_MODEL: CallModel = [
  layer('conv', { out: 4, in: MEL_BANDS, kernel: 5, stride: 2, dilation: 1 }),
  layer('conv', { out: 4, in: 4, kernel: 5, stride: 2, dilation: 1 }),
  layer('residual', { out: 4, in: 4, kernel: 3, stride: 1, dilation: 2 }),
  layer('linear', { out: 6, in: 4, kernel: 1, stride: 1, dilation: 1 }),
]
const LISTENERS: [name: string, make: () => Listener][] = [
  ['tones', () => new ToneListener()],
  ['bands', () => bandsOf()],
  ['calls', () => new CallListener(ANY_MODEL)],
  ['peaks', () => new PeakGatherer()],
]

/** Silence, noise and tones, one after another. */
const anySound = fc
  .array(fc.record({ hz: fc.constantFrom(0, 1, 440, 1500, 2000), lengthMs: fc.nat({ max: 400 }) }), { maxLength: 8 })
  .map((parts) =>
    Float32Array.from(
      parts.flatMap(({ hz, lengthMs }) =>
        Array.from({ length: Math.round((lengthMs / 1000) * HEARING_RATE) }, (_, at) =>
          hz === 1 ? Math.sin(at * at) * 0.2 : 0.3 * Math.sin((2 * Math.PI * hz * at) / HEARING_RATE),
        ),
      ),
    ),
  )

function hear(make: () => Listener, sound: Float32Array, block: number): unknown {
  const listener = make()
  for (let at = 0; at < sound.length; at += block) listener.push(sound.subarray(at, at + block))
  return listener.finish()
}

describe.each(LISTENERS)('%s', (_, make) => {
  it('hears the same however the sound comes in, leaves it as it was, and makes something of none at all', () => {
    fc.assert(
      fc.property(anySound, fc.integer({ min: 1, max: 5000 }), (sound, block) => {
        const before = sound.slice()
        const whole = hear(make, sound, Math.max(1, sound.length))
        expect(hear(make, sound, block)).toEqual(whole)
        expect(sound).toEqual(before)
      }),
      { numRuns: 20 },
    )
  })
})
