import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { carriedOver } from './carriedOver'

const was = 'Deck Hours 12\nPromised 15 minutes\n\nChapters\n0:00 Welcome\n0:16 Main\n'

describe('changes to a text', () => {
  it('stay where the text around them is written anew', () => {
    const edited = was.replace('Deck Hours 12\n', 'Deck Hours 12: flat water\n') + '\n#boats\n'
    const written = was.replace('0:16 Main', '0:20 Main\n1:40 Stretch')
    expect(carriedOver({ was, edited, written })).toEqual({
      text: 'Deck Hours 12: flat water\nPromised 15 minutes\n\nChapters\n0:00 Welcome\n0:20 Main\n1:40 Stretch\n\n#boats\n',
      clashes: 0,
    })
  })
  it('stay, and are told, where both have changed the same', () => {
    const edited = was.replace('Promised 15 minutes', 'A quarter of an hour')
    const written = was.replace('Promised 15 minutes', 'Promised 20 minutes')
    expect(carriedOver({ was, edited, written })).toEqual({ text: edited, clashes: 1 })
  })
  it('are none where nothing was changed, or nothing is written anew', () => {
    const text = fc.array(fc.constantFrom('one', 'two', '', 'three'), { maxLength: 8 }).map((all) => all.join('\n'))
    fc.assert(
      fc.property(text, text, (one, other) => {
        expect(carriedOver({ was: one, edited: one, written: other })).toEqual({ text: other, clashes: 0 })
        expect(carriedOver({ was: one, edited: other, written: one })).toEqual({ text: other, clashes: 0 })
        expect(carriedOver({ was: one, edited: other, written: other })).toEqual({ text: other, clashes: 0 })
      }),
    )
  })
})
