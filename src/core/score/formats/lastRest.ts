// Whether the rest at the end of a pass is there: docs/decisions/004 says what each rule means and why.
import type { LastRest } from './fields'

export interface EndOfPass {
  /** No pass comes after this one. */
  last: boolean
  /** A break of this section stands between passes. */
  breakBetween: boolean
  /** The next section is a break. */
  breakFollows: boolean
}

/** `kept`: always. `replaced`: unless a break follows. `dropped`: the same, and never at the very end. */
export function restStays(rule: LastRest, { last, breakBetween, breakFollows }: EndOfPass): boolean {
  switch (rule) {
    case 'kept':
      return true
    case 'dropped':
      return !last && !breakBetween
    case 'replaced':
      return last ? !breakFollows : !breakBetween
  }
}
