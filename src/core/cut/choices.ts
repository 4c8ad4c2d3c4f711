// Every fit beside the others, as they are shown before one is chosen.
import type { Ms } from '../units'
import { fitted, FITS, type CutWishes, type Filmed, type Fit, type Fitted } from './fit'

/** What a fit makes of the footage, without the cut itself. */
export interface FitChoice extends Pick<Fitted, 'changes' | 'reused'> {
  outMs: Ms
  /** Lengths of the stretches in order, by what they are. */
  parts: { kind: 'filmed' | 'reused' | 'drawn'; lengthMs: Ms }[]
}

const forEach = <T>(of: (fit: Fit) => T): Record<Fit, T> =>
  Object.fromEntries(FITS.map((fit) => [fit, of(fit)])) as Record<Fit, T>

/** Every fit, with the same wishes. */
export const everyFit = (filmed: Filmed, wishes: CutWishes): Record<Fit, Fitted> =>
  forEach((fit) => fitted(filmed, { ...wishes, fit }))

export const choicesOf = (all: Record<Fit, Fitted>): Record<Fit, FitChoice> => forEach((fit) => choiceOf(all[fit]))

function choiceOf({ cut, changes, reused }: Fitted): FitChoice {
  const parts: FitChoice['parts'] = []
  for (const { why, lengthMs } of cut.spans) {
    const kind = why === 'reused' ? 'reused' : why === 'card' || why === 'held' ? 'drawn' : 'filmed'
    const last = parts.at(-1)
    if (last?.kind === kind) last.lengthMs += lengthMs
    else parts.push({ kind, lengthMs })
  }
  return { outMs: cut.outMs, parts, changes, reused }
}
