// Which of several meanings a block has: the likelier one, after what the plan says of its sums; and what to ask where
// two are close.
import { tryExpand } from '../../expand/expand'
import { newSection, type Section } from '../../score/formats'
import { withKeys } from '../../score/formats/keys'
import { emptyScore } from '../../score/score'
import type { Ms } from '../../units'
import type { Meaning, MeaningLabel } from './meaning'
import type { Settled } from './settled'

export interface Choice {
  label: MeaningLabel
  totalMs: Ms
  chosen: boolean
}
export interface Question {
  /** The block that it is about. */
  about: string
  moves: readonly string[]
  /** Why the chosen one is. */
  because: 'usual' | 'total'
  choices: readonly Choice[]
}

const MOST_CHOICES = 3
/** What a stated total adds to the reading that gives it: more than any wording. */
const STATED = 1.5
/** What the minutes of the title add to a reading within a tenth of them. */
const PROMISED = 0.5
/** Readings whose likelihoods differ by more are not asked about. */
const CLOSE = 0.4

interface Weighed {
  meaning: Meaning
  totalMs: Ms
  weight: number
  fits: number
}

/**
 * @param goalMs the minutes that the title promises, where this is the only block.
 * @param answer which choice was taken, where it was asked before.
 */
export function choose(
  meanings: readonly Meaning[],
  said: Settled,
  goalMs: Ms | null,
  answer: number | null,
): { meaning: Meaning; question: Question | null } | null {
  const weighed = meanings
    .flatMap((one) => withLastRest(one, said))
    .map((meaning): Weighed => {
      const sums = sumsOf(meaning.sections)
      const fits = Math.max(...sums.map((sum) => fitOf(sum, statedOf(said), goalMs)))
      return { meaning, totalMs: sums[0], fits, weight: meaning.prior + fits }
    })
    .sort((one, other) => other.weight - one.weight)
  const [best] = weighed
  if (!best) return null
  const close = (one: Weighed): boolean => best.weight - one.weight < CLOSE && one.totalMs !== best.totalMs
  const rivals = weighed.filter((one) => close(one) && one.meaning.label)
  if (!rivals.length || !best.meaning.label) return { meaning: best.meaning, question: null }
  const choices = [best, ...rivals].slice(0, MOST_CHOICES)
  const chosen = choices[answer ?? 0] ?? best
  return { meaning: chosen.meaning, question: questionOf(choices, chosen, said) }
}

const questionOf = (choices: readonly Weighed[], chosen: Weighed, { block, items }: Settled): Question => ({
  about: block.name,
  moves: items.flatMap(({ parts }) => parts.map(({ label }) => label)),
  because: choices[0]?.fits ? 'total' : 'usual',
  choices: choices.flatMap((one) =>
    one.meaning.label ? [{ label: one.meaning.label, totalMs: one.totalMs, chosen: one === chosen }] : [],
  ),
})

function fitOf(totalMs: Ms, statedMs: Ms | null, goalMs: Ms | null): number {
  if (statedMs !== null) return isNear(totalMs, statedMs) ? STATED : 0
  return goalMs !== null && Math.abs(totalMs - goalMs) <= goalMs * 0.1 ? PROMISED : 0
}

/** A total that the block states, where it is not the length of what is done. */
const statedOf = ({ total }: Settled): Ms | null =>
  total && (total.fate !== 'used' || total.as === 'total') ? total.low : null

/** Where a total is stated, the last rest may be there or not. */
function withLastRest(meaning: Meaning, said: Settled): Meaning[] {
  const [section] = meaning.sections
  if (statedOf(said) === null || meaning.sections.length !== 1 || !section || !('lastRest' in section)) return [meaning]
  const dropped: Meaning = {
    sections: [{ ...section, lastRest: 'dropped' }],
    prior: meaning.prior * 0.3,
    label: meaning.label ?? { code: 'last-rest', kept: false },
  }
  return [{ ...meaning, label: meaning.label ?? { code: 'last-rest', kept: true } }, dropped]
}

/** Within a second, or what one says of a length: half a percent. */
export const isNear = (oneMs: Ms, otherMs: Ms): boolean => Math.abs(oneMs - otherMs) <= Math.max(1000, otherMs * 0.005)

const sumOf = (sections: readonly Section[]): Ms =>
  tryExpand({ ...emptyScore(''), sections: sections.map(withKeys) }).expansion?.totalMs ?? 0

const AFTERWARDS = newSection('talk', 'afterwards', 'Afterwards')
const AFTERWARDS_MS = sumOf([AFTERWARDS])

/** What people may mean by the length of sections: many count a rest after the last move, though none waits for it. */
export const sumsOf = (sections: readonly Section[]): [alone: Ms, followed: Ms] => [
  sumOf(sections),
  sumOf([...sections, AFTERWARDS]) - AFTERWARDS_MS,
]
