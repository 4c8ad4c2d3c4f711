// English sentences for what is wrong with a shorthand text.
import type { ShorthandCode, ShorthandProblem, ShorthandValues } from '../../shorthand/problems'

const SENTENCES: Record<ShorthandCode, (values: ShorthandValues) => string> = {
  unexpected: ({ found }) =>
    found
      ? `"${found}" does not fit here. It is kept, but not understood.`
      : 'Something is missing here, such as a closing bracket or a name.',
  'name-wants-quotes': ({ found, known }) => `A name with "${found}" in it wants quotes: ${known}.`,
  'unknown-head': ({ found }) => `No section starts with "${found}". The line is kept, but not understood.`,
  'unknown-setting': ({ found, known, most }) =>
    `"${found}" is no setting here${most ? `; meant is "${most}"` : known ? `; known are ${known}` : ''}. It is kept, but not understood.`,
  'no-section': () =>
    'These moves stand before any section. Start one above, such as "circuit Main: 3 rounds, 40 on, 20 off".',
  'no-moves-here': ({ found }) => `A ${found} holds no moves.`,
  'group-size': ({ found, most }) => `Found ${found} joined by "+", expected ${most}.`,
  'bad-key': ({ found }) => `"${found}" is taken or no key: small letters, digits and hyphens. Another was chosen.`,
  'bad-reps': ({ found }) => `Found ${found} reps, expected 1 to 10000.`,
  'too-many': ({ most }) => `More than ${most} do not fit here.`,
  'too-long': ({ most }) => `Longer than ${most} letters; what is beyond was cut off.`,
  'no-length': ({ found }) => `"${found}" has no length; half a minute was taken. Type it in brackets: (35 work).`,
}

export const shorthandSentence = ({ code, values }: Pick<ShorthandProblem, 'code' | 'values'>): string =>
  SENTENCES[code](values)
