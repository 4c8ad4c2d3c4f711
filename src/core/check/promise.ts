// The sum breaks the promise: more than 5 % or a minute off, whichever is larger.
import type { Unfolding } from '../expand/expand'
import { promisedLength, type Score } from '../score/score'
import type { Ms } from '../units'
import { finding, type Check } from './finding'

/** How far a sum may be from what was announced before viewers notice. */
export const promiseSlackMs = (promiseMs: Ms): Ms => Math.max(60_000, promiseMs * 0.05)

/** Whole minutes, as they are announced. */
export const inMinutes = (ms: Ms): number => Math.max(1, Math.round(ms / 60_000))

const MINUTES = /\b(\d{1,3})[\s-]*min(?:ute)?s?\b/i
/** The minutes that a title names; NaN for none. */
export const minutesIn = (title: string): number => Number(MINUTES.exec(title)?.[1])
export const withMinutes = (title: string, minutes: number): string =>
  title.replace(MINUTES, (said, number: string) => said.replace(number, String(minutes)))
const saysMinutes = (title: string, ms: Ms): boolean => minutesIn(title) * 60_000 === ms

/** True where nothing is promised, or nothing is planned yet. */
export function isPromiseKept(
  score: Pick<Score, 'promiseMs' | 'promiseOf'>,
  { expansion }: Pick<Unfolding, 'expansion'>,
): boolean {
  const { promiseMs } = score
  const ms = promisedLength(score, expansion)
  return promiseMs === null || !ms || Math.abs(ms - promiseMs) <= promiseSlackMs(promiseMs)
}

export const checkPromise: Check = ({ score, expansion }) => {
  const { promiseMs, promiseOf } = score
  if (promiseMs === null || isPromiseKept(score, { expansion })) return []
  const { estimated } = expansion
  const totalMs = promisedLength(score, expansion)
  const off = totalMs - promiseMs
  const minutes = inMinutes(totalMs)
  return [
    finding('promise', {
      id: off > 0 ? 'over' : 'under',
      severity: 'warning',
      fact: { code: 'promise-off', promiseMs, totalMs, estimated, of: promiseOf },
      mend: {
        fact: { code: 'promise-minutes', minutes, title: saysMinutes(score.title, promiseMs) },
        // A title that says the same goes along.
        apply: (draft) => {
          if (saysMinutes(draft.title, promiseMs)) draft.title = withMinutes(draft.title, minutes)
          draft.promiseMs = minutes * 60_000
        },
      },
    }),
  ]
}
