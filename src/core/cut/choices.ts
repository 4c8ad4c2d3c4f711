// Every fit beside the others, as they are shown before one is chosen.
import { sum } from '../sum'
import type { Ms } from '../units'
import { fitted, FITS, type CutWishes, type Filmed, type Fit, type Fitted } from './fit'

/** What a fit would make of the footage. */
export interface FitChoice extends Pick<Fitted, 'changes' | 'reused'> {
  outMs: Ms
  /** Lengths of the stretches in order, by what they are. */
  parts: { kind: 'filmed' | 'reused' | 'drawn'; lengthMs: Ms }[]
}

/** Every fit beside the others, with the same wishes. */
export function choicesOf(filmed: Filmed, wishes: CutWishes): Record<Fit, FitChoice> {
  const of = (fit: Fit): [Fit, FitChoice] => {
    const { cut, changes, reused } = fitted(filmed, { ...wishes, fit })
    const parts: FitChoice['parts'] = []
    for (const { why, lengthMs } of cut.spans) {
      const kind = why === 'reused' ? 'reused' : why === 'card' || why === 'held' ? 'drawn' : 'filmed'
      const last = parts.at(-1)
      if (last?.kind === kind) last.lengthMs += lengthMs
      else parts.push({ kind, lengthMs })
    }
    return [fit, { outMs: sum(parts.map(({ lengthMs }) => lengthMs)), parts, changes, reused }]
  }
  return Object.fromEntries(FITS.map(of)) as Record<Fit, FitChoice>
}
