// The sum breaks the promise: more than 5 % or a minute off, whichever is larger.
import type { Ms } from '../units'
import { finding, type Check } from './finding'

/** How far a sum may be from what was announced before viewers notice. */
export const promiseSlackMs = (promiseMs: Ms): Ms => Math.max(60_000, promiseMs * 0.05)

/** Whole minutes, as they are announced. */
export const inMinutes = (ms: Ms): number => Math.max(1, Math.round(ms / 60_000))

export const checkPromise: Check = ({ score, expansion }) => {
  const { promiseMs, promiseOf } = score
  const { estimated } = expansion
  const totalMs = promiseOf === 'workout' ? expansion.workoutMs : expansion.totalMs
  if (promiseMs === null || !totalMs) return []
  const off = totalMs - promiseMs
  if (Math.abs(off) <= promiseSlackMs(promiseMs)) return []
  const minutes = inMinutes(totalMs)
  return [
    finding('promise', {
      id: off > 0 ? 'over' : 'under',
      severity: 'warning',
      fact: { code: 'promise-off', promiseMs, totalMs, estimated, of: promiseOf },
      mend: {
        fact: { code: 'promise-minutes', minutes },
        apply: (draft) => {
          draft.promiseMs = minutes * 60_000
        },
      },
    }),
  ]
}
