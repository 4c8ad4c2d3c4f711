// What is said of the part of the picture that is shown.
import type { Shape } from '../../cut/framing'
import type { Share } from '../../units'

export const framingTexts = {
  shape: 'Picture',
  shapes: {
    filmed: 'as it was filmed',
    wide: 'wide, 16:9',
    upright: 'upright, 9:16',
    square: 'square, 1:1',
  } satisfies Record<Shape, string>,
  looks: 'The picture looks',
  /** 0 is the left edge, or the upper one. */
  place: (at: Share) => `${Math.round(at * 100)} %`,
  keys: (count: number) => (count === 1 ? '1 key' : `${count} keys`),
  before: 'To the key before',
  after: 'To the next key',
  drop: 'Take the key here away',
  follow: 'Follow whoever moves',
  following: 'Looking for movement ...',
  followed: (count: number) =>
    `${count === 1 ? 'One key follows' : `${count} keys follow`} whoever moves. Move the picture where it is not right.`,
  nobodyMoves: 'Nobody was found to move. The picture looks where it did.',
  clear: 'Take all keys away',
  hint: 'Move it: a key is set at what is seen.',
  nothingSeen: 'A card is seen here, and no footage.',
} as const
