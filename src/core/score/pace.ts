// What is known of a length. Nothing stands for a fact that is none: a guess has its bounds beside it, wherever it
// goes.
import type { Ms } from '../units'

export const PACES = ['fixed', 'own', 'open', 'range'] as const
/**
 * `fixed`: the plan says it. `own`: reps at the viewer's own pace, with an estimate. `open`: until ready (talk).
 * `range`: between two lengths, by fitness.
 */
export type Pace = (typeof PACES)[number]

export interface Bounds {
  minMs: Ms
  maxMs: Ms | null
}

/**
 * How far own pace and talk stray from the guess, as shares of it. Rules of thumb of ours, not measured on viewers: a
 * quick viewer needs three quarters of the guess, a slow one half as much again; talk takes from half to twice.
 */
const STRAYS = { own: { low: 0.75, high: 1.5 }, open: { low: 0.5, high: 2 } } as const

/** @param guessMs 0 for talk of which nothing is known: it may take any time. */
export function boundsOf(pace: 'fixed' | 'own' | 'open', guessMs: Ms): Bounds {
  if (pace === 'fixed') return { minMs: guessMs, maxMs: guessMs }
  if (pace === 'open' && !guessMs) return { minMs: 0, maxMs: null }
  const { low, high } = STRAYS[pace]
  return { minMs: Math.round(guessMs * low), maxMs: Math.round(guessMs * high) }
}
