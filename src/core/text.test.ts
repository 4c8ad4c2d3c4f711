import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Problem } from './problem'
import { clipped, refuseUnstorable } from './text'

const anyText = fc.string({ unit: 'grapheme-composite', maxLength: 60 })

describe('cutting text', () => {
  it('leaves whole letters, never more than asked, and what is short as it is', () => {
    fc.assert(
      fc.property(anyText, fc.integer({ min: 0, max: 40 }), (text, most) => {
        const cut = clipped(text, most)
        expect(text.startsWith(cut)).toBe(true)
        expect(cut.length).toBeLessThanOrEqual(most)
        expect(cut.isWellFormed()).toBe(true)
        if (text.length <= most) expect(cut).toBe(text)
        else expect(cut.length).toBeGreaterThanOrEqual(most - 1)
      }),
    )
    expect(clipped('🪢🪢', 3)).toBe('🪢')
  })
})

describe('what cannot be stored', () => {
  const placeOf = (document: unknown): string | null => {
    try {
      refuseUnstorable(document)
      return null
    } catch (error) {
      expect((error as Problem).code).toBe('unstorable-text')
      return (error as Problem).place
    }
  }
  it('is found wherever it hides, with its place', () => {
    expect(placeOf({ sections: [{ name: 'Main' }, { name: 'half \ud83e' }] })).toBe('sections.1.name')
    expect(placeOf({ a: ['x', 'nul \0'] })).toBe('a.1')
    expect(placeOf({ 'key \0': 1 })).not.toBeNull()
    expect(placeOf('\udea2')).toBe('')
  })
  it('is nothing else: any whole text, number or depth passes', () => {
    fc.assert(
      fc.property(fc.jsonValue({ stringUnit: 'grapheme-composite' }), (value) => {
        fc.pre(!JSON.stringify(value).includes('\\u0000'))
        expect(placeOf(value)).toBeNull()
      }),
    )
    let deep: unknown = 'x'
    for (let depth = 0; depth < 100_000; depth++) deep = [deep]
    expect(placeOf(deep)).toBeNull()
  })
})
