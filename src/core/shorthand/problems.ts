// What can be wrong with a shorthand text, as data: a code with its values, a place, and a mend where one is at hand.
import { distance } from 'fastest-levenshtein'

export type ShorthandCode =
  | 'unexpected'
  | 'name-wants-quotes'
  | 'unknown-head'
  | 'unknown-setting'
  | 'no-section'
  | 'no-moves-here'
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
  values: ShorthandValues
  mend: Mend | null
}

export type ShorthandValues = Partial<Record<'found' | 'known' | 'head' | 'most', string>>

interface Complaint {
  code: ShorthandCode
  /** Characters from the start of the text. */
  at: { from: number; to: number }
  values?: ShorthandValues
  mend?: Mend | null
}

export function complain(problems: ShorthandProblem[], { code, at, values = {}, mend = null }: Complaint): void {
  problems.push({ code, from: at.from, to: at.to, values, mend })
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
