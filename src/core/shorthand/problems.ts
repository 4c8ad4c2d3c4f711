// What can be wrong with a shorthand text, as data: a code with its values, a place, and a mend where one is at hand.
import { distance } from 'fastest-levenshtein'

export type ShorthandCode =
  | 'unexpected'
  | 'unknown-head'
  | 'unknown-setting'
  | 'no-section'
  | 'no-moves-here'
  | 'one-by-one'
  | 'group-size'
  | 'bad-key'
  | 'bad-reps'
  | 'too-many'
  | 'too-long'
  | 'no-length'

/** A replacement that would put it right. */
export interface Mend {
  from: number
  to: number
  insert: string
  label: string
}

export interface ShorthandProblem {
  code: ShorthandCode
  /** Characters from the start of the text. */
  from: number
  to: number
  message: string
  mend: Mend | null
}

type Values = Partial<Record<'found' | 'known' | 'head' | 'most', string>>

const MESSAGES: Record<ShorthandCode, (values: Values) => string> = {
  unexpected: ({ found }) =>
    found
      ? `"${found}" does not fit here. It is kept, but not understood.`
      : 'Something is missing here, such as a closing bracket or a name.',
  'unknown-head': ({ found }) => `No section starts with "${found}". The line is kept, but not understood.`,
  'unknown-setting': ({ found, known }) =>
    `"${found}" is no setting here${known ? `; known are ${known}` : ''}. It is kept, but not understood.`,
  'no-section': () =>
    'These moves stand before any section. Start one above, such as "circuit Main: 3 rounds, 40 on, 20 off".',
  'no-moves-here': ({ found }) => `A ${found} holds no moves.`,
  'one-by-one': ({ found }) => `In "${found}" moves stand one by one; "+" does not join them here.`,
  'group-size': ({ found, most }) => `Found ${found} joined by "+", expected ${most}.`,
  'bad-key': ({ found }) => `"${found}" is taken or no key: small letters, digits and hyphens. Another was chosen.`,
  'bad-reps': ({ found }) => `Found ${found} reps, expected 1 to 10000.`,
  'too-many': ({ most }) => `More than ${most} do not fit here.`,
  'too-long': ({ most }) => `Longer than ${most} letters; what is beyond was cut off.`,
  'no-length': ({ found }) => `"${found}" has no length; half a minute was taken. Type it in brackets: (35 work).`,
}

export function complain(
  problems: ShorthandProblem[],
  code: ShorthandCode,
  at: { from: number; to: number },
  values: Values,
  mend: Mend | null = null,
): void {
  problems.push({ code, from: at.from, to: at.to, message: MESSAGES[code](values), mend })
}

/** The word that was probably meant, or null: one slip in short words, two in longer ones. */
export function nearest(typed: string, words: readonly string[]): string | null {
  let best: string | null = null,
    least = typed.length > 4 ? 3 : 2
  for (const word of words) {
    const slips = distance(typed.toLowerCase(), word.toLowerCase())
    if (slips < least) [best, least] = [word, slips]
  }
  return best
}
