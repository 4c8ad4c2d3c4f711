// What every listener holds to, whatever the sound: each new one gets a line in the list.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { PeakGatherer } from './peaks'
import { HEARING_RATE, ToneListener } from './tones'

interface Listener {
  push: (block: Float32Array) => void
  finish: () => unknown
}
const LISTENERS: [name: string, make: () => Listener][] = [
  ['tones', () => new ToneListener()],
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
      { numRuns: 40 },
    )
  })
})
