// Made-up plans with the scores that they mean, for the reader's tests and its bench: `== name`, the text, `--->`, and
// the score in shorthand. A plan is read right where the running order is the same: kind, length with its bounds, move,
// side and reps of every interval, and the promise.
import { expand } from '../../expand/expand'
import type { Score } from '../../score/score'
import type { Segment } from '../../score/segment'
import { readShorthand } from '../../shorthand/read'
import { readTypedPlan, type PlanReading } from '../typedPlan'

export interface TypedPlan {
  name: string
  text: string
  meant: string
}

/** @throws Error where a plan has no score, or one that is not understood. */
export function readCorpus(text: string): TypedPlan[] {
  return text
    .split(/^== /m)
    .slice(1)
    .map((part) => {
      const [head = '', ...rest] = part.split('\n')
      const [typed = '', meant] = rest.join('\n').split('\n--->\n')
      if (meant === undefined) throw new Error(`the plan "${head}" says no score`)
      const { problems } = readShorthand(meant)
      if (problems[0]) throw new Error(`the score of "${head}": ${problems[0].code}`)
      return { name: head.trim(), text: typed, meant }
    })
}

/** What viewers are told to do, one line an interval. */
export const runningOrder = (score: Score): string[] => [
  `promise ${score.promiseMs}`,
  ...expand(score).segments.map(told),
]

function told({ kind, label, side, firstSide, durationMs, minMs, maxMs, pace, reps }: Segment): string {
  const off = kind === 'rest' || kind === 'break'
  const length = pace === 'own' ? 'own pace' : pace === 'range' ? `${minMs}-${maxMs}` : String(durationMs)
  const sided = side === null ? '' : `${side} ${side === 'switch' ? firstSide : ''}`
  return [off ? 'off' : kind, length, off || kind === 'talk' ? '' : label.toLowerCase(), sided, reps ?? ''].join('|')
}

export interface Outcome {
  plan: TypedPlan
  reading: PlanReading
  right: boolean
  /** Wrong, and nothing on screen says that it may be. */
  silent: boolean
}

export function tryPlan(plan: TypedPlan): Outcome {
  const reading = readTypedPlan(plan.text)
  const wanted = runningOrder(readShorthand(plan.meant).score)
  const right = wanted.join('\n') === runningOrder(reading.score).join('\n')
  const marked =
    reading.questions.length > 0 || reading.unmet !== null || reading.tokens.some(({ fate }) => fate === 'unread')
  return { plan, reading, right, silent: !right && !marked }
}
