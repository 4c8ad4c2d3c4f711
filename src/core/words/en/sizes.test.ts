import { expect, it } from 'vitest'
import { sizeText } from './sizes'

it('says a size in the unit that fits it', () => {
  const sizes = [0, 999, 1000, 1_250_000, 4.25e9, 3e12, 9e15]
  expect(sizes.map(sizeText)).toEqual(['0 byte', '999 byte', '1 kB', '1.3 MB', '4.3 GB', '3 TB', '9,000 TB'])
})
