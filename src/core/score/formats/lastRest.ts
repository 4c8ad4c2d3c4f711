// Whether the rest at the end of a pass is there: docs/decisions/004 says what each rule means and why.
import type { LastRest } from './fields'

export interface EndOfPass {
  /** No pass comes after this one. */
  last: boolean
  /** A break of this section stands between passes. */
  breakBetween: boolean
  follows: Follows
}

/** What comes after a section. */
export type Follows = 'break' | 'section' | 'nothing'

/** `kept`: always. `replaced`: unless a break or nothing follows. `dropped`: the same, and never at the very end. */
export function restStays(rule: LastRest, { last, breakBetween, follows }: EndOfPass): boolean {
  switch (rule) {
    case 'kept':
      return true
    case 'dropped':
      return !last && !breakBetween
    case 'replaced':
      return last ? follows === 'section' : !breakBetween
  }
}

/** The same where a rest is what a slot has left: the last slot is as long as any, also where nothing follows. */
export const slotStaysWhole = (rule: LastRest, end: EndOfPass): boolean =>
  restStays(rule, { ...end, follows: end.follows === 'nothing' ? 'section' : end.follows })
