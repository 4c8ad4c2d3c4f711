import { describe, expect, it } from 'vitest'
import { fontPxFor, readableFrom, setInto } from './reading'

describe('letters that are read from afar', () => {
  it('have the height that their angle wants', () => {
    // 20 minutes of arc at 4 m are 23.27 mm, which are 87.95 px of capital, 122.2 px of font.
    expect(fontPxFor('glance', 4)).toBeCloseTo(122.2, 0)
    expect(fontPxFor('count', 4)).toBeCloseTo(2 * fontPxFor('glance', 4), 0)
    for (const metres of [1, 2.5, 4]) expect(readableFrom('look', fontPxFor('look', metres))).toBeCloseTo(metres)
  })
})

describe('setting a text', () => {
  const room = { width: 100, height: 60, mostPx: 50, leading: 1 }
  const byLetter = (line: string): number => line.length

  it('breaks it where that lets it be larger', () => {
    expect(setInto('rope', room, byLetter)).toEqual({ lines: ['rope'], px: 25 })
    expect(setInto('lock gate push', room, byLetter)).toEqual({ lines: ['lock', 'gate', 'push'], px: 20 })
    expect(setInto('jug lift', { ...room, height: 30 }, byLetter)).toEqual({ lines: ['jug', 'lift'], px: 15 })
  })

  it('keeps one long word whole, however small', () => {
    const long = 'a'.repeat(200)
    expect(setInto(long, room, byLetter)).toEqual({ lines: [long], px: 0.5 })
    expect(setInto('', room, byLetter).lines).toEqual([''])
  })
})
