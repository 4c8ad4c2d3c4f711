import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Surface } from './surface'
import { typeset } from './typeset'

/** Every letter is half as wide as it is high. */
const ruler: Surface = {
  font: '',
  measureText: (text: string) => ({ width: text.length * 0.5 * Number(/(\d+\.\d+)px/.exec(ruler.font)![1]) }),
} as unknown as Surface
const set = (texts: string[], width: number) => typeset(ruler, '400 %px "Any"', texts, { width, size: 8, least: 4 })

describe('a text in its room', () => {
  it('is smaller before it is shorter, and shorter before it takes more lines', () => {
    expect(set(['Jug lift'], 40)).toMatchObject({ lines: ['Jug lift'], size: 8 })
    expect(set(['Jug lift'], 25)).toMatchObject({ lines: ['Jug lift'], size: 6.25 })
    expect(set(['Lock-gate push', 'Gate push'], 36)).toMatchObject({ lines: ['Gate push'], size: 8 })
    expect(set(['Lock-gate push'], 30)).toMatchObject({ lines: ['Lock-gate push'] })
    expect(set(['Lock-gate push'], 24)).toMatchObject({ lines: ['Lock-gate', 'push'], size: 4 })
  })
  it('is smaller than can be read only where it would be too high', () => {
    const { size, height } = typeset(ruler, '400 %px "Any"', ['word '.repeat(60)], {
      ...{ width: 60, size: 8, least: 4, most: 20 },
    })
    expect([size < 4, height <= 20, height > 15]).toEqual([true, true, true])
  })
  it('is never cut, never too wide and never too small', () => {
    const word = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 40 }).filter((text) => /^\S+$/.test(text))
    fc.assert(
      fc.property(
        fc.array(word, { minLength: 1, maxLength: 30 }),
        fc.integer({ min: 60, max: 200 }),
        (words, width) => {
          const { lines, size, width: wide, height } = set([words.join(' ')], width)
          expect(lines.join('').replaceAll(' ', '')).toBe(words.join(''))
          expect(size).toBeGreaterThanOrEqual(4)
          expect(height).toBeGreaterThanOrEqual(size * lines.length)
          // A single letter of many parts may be wider than any room.
          if (lines.every((line) => line.length > 12)) expect(wide).toBeLessThanOrEqual(width * 1.01)
        },
      ),
    )
  })
})
