import { describe, expect, it } from 'vitest'
import { legibility, seenMm } from './distance'
import { LOOK_NAMES, USUAL_LOOK } from './looks/family'

const WIDE = { width: 1920, height: 1080 },
  UPRIGHT = { width: 1080, height: 1920 }

describe('what can be read from where viewers stand', () => {
  it('is an angle: 12.2 mm at 3.5 m are twelve minutes', () => {
    const { lines } = legibility({ ...USUAL_LOOK, look: 'linocut' }, WIDE, 'television')
    // 4.3 hundredths of 685 mm, of which a capital is seven tenths.
    expect(lines.minutes).toBeCloseTo((4.3 * 6.85 * 0.7 * 3437.75) / 3500, 1)
  })
  it.each(LOOK_NAMES)('is all of %s on a television, and on a tablet at arm’s length and more', (look) => {
    for (const screen of ['television', 'tablet'] as const) {
      const all = legibility({ ...USUAL_LOOK, look, size: screen === 'tablet' ? 1.4 : 1 }, WIDE, screen)
      if (screen === 'television') expect(Object.values(all).every(({ isEnough }) => isEnough)).toBe(true)
      expect(all.count.isEnough).toBe(true)
    }
  })
  it('is the count of the lantern on a phone on the floor, and of no other look', () => {
    const readable = LOOK_NAMES.filter((look) => legibility({ ...USUAL_LOOK, look }, WIDE, 'phone').count.isEnough)
    expect(readable).toEqual(['lantern'])
  })
  it('shrinks where an upright picture stands on a television', () => {
    const minutes = (frame: typeof WIDE) => legibility(USUAL_LOOK, frame, 'television').count.minutes
    expect(minutes(UPRIGHT) / minutes(WIDE)).toBeCloseTo(9 / 16, 2)
  })
  it('is shown as large as it is to the eye: 1218 mm at 3.5 m are 191 mm at 55 cm', () => {
    const { width, height } = seenMm(WIDE, 'television', 550)
    expect(width).toBeCloseTo((1218 * 550) / 3500, 0)
    expect(width / height).toBeCloseTo(16 / 9, 5)
    // A phone is turned to an upright picture.
    expect(seenMm(UPRIGHT, 'phone', 2000).width).toBeCloseTo(65, 0)
  })
})
