import fc from 'fast-check'
import { expect, it } from 'vitest'
import { heartRateBytes, heartRateIn } from './heart'

it('reads what the standard writes', () => {
  expect(heartRateIn(Uint8Array.of(0x00, 72))).toBe(72)
  // Two bytes, energy and beat intervals behind them.
  expect(heartRateIn(Uint8Array.of(0x19, 0x2c, 0x01, 0x10, 0x00, 0x40, 0x03))).toBe(300)
  fc.assert(fc.property(fc.integer({ min: 0, max: 65_535 }), (bpm) => heartRateIn(heartRateBytes(bpm)) === bpm))
})

it('knows what is no measurement, and a strap that touches nothing', () => {
  for (const bytes of [[], [0x00], [0x01, 72], [0x04, 72]]) expect(heartRateIn(Uint8Array.from(bytes))).toBeNull()
})
