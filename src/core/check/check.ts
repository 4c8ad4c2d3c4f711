// All judgement that needs no footage. A check is one file here and one line in the list.
import { tryExpand, type Unfolding } from '../expand/expand'
import type { MendFact, ProblemFact } from '../facts'
import { castOf } from '../score/cast'
import { USUAL_NEEDS } from '../score/needs'
import { promisedLength, type Score } from '../score/score'
import { MINUTE } from '../units'
import { checkCards } from './cards'
import { checkCounters } from './counters'
import { finding, SEVERITIES, type Check, type Finding, type FindingMend } from './finding'
import { checkMoves } from './moves'
import { checkNeighbours } from './neighbours'
import { checkPromise, inMinutes, isPromiseKept } from './promise'
import { checkReady } from './ready'
import { checkRestNeeds } from './restNeeds'
import { checkSides } from './sides'
import { checkTitleWord } from './titleWord'
import { checkUnread } from './unread'
import { checkWarmAndCool } from './warmAndCool'

const CHECKS: readonly Check[] = [
  checkPromise,
  checkTitleWord,
  checkRestNeeds,
  checkReady,
  checkSides,
  checkWarmAndCool,
  checkCards,
  checkNeighbours,
  checkMoves,
  checkCounters,
  checkUnread,
]

export interface Dismissed<F = Finding> {
  finding: F
  reason: string
}

export interface Judgement<F = Finding> {
  /** Worst first, then in order of the score. */
  findings: F[]
  /** Found as well, and set aside by the creator. */
  dismissed: Dismissed<F>[]
}

/** A finding as plain data, as a worker can send it: it says what its mend is, `mendOf` has the mend itself. */
export type ToldFinding = Omit<Finding, 'mend'> & { mend: MendFact | null }

/** @param unfolding that of the score, where it is at hand. */
export function judge(score: Score, { expansion, problem }: Unfolding = tryExpand(score)): Judgement {
  if (!expansion) return { findings: [beyondLimits(problem)], dismissed: [] }
  const review = { score, expansion, cast: castOf(score.moves), needs: { ...USUAL_NEEDS, ...score.needs } }
  const reasons = new Map(score.dismissed.map((one) => [one.finding, one.reason]))
  const all = CHECKS.flatMap((check) => check(review))
  const order = (one: Finding): number => SEVERITIES.indexOf(one.severity)
  return {
    findings: all.filter((one) => !reasons.has(one.id)).sort((one, other) => order(one) - order(other)),
    dismissed: all.flatMap((one) => {
      const reason = reasons.get(one.id)
      return reason === undefined ? [] : [{ finding: one, reason }]
    }),
  }
}

const beyondLimits = (problem: ProblemFact): Finding =>
  finding('limits', { id: 'beyond', severity: 'error', fact: { code: 'beyond-limits', problem } })

/** A judgement as plain data. */
export function told({ findings, dismissed }: Judgement): Judgement<ToldFinding> {
  const plain = (one: Finding): ToldFinding => ({ ...one, mend: one.mend && one.mend.fact })
  return {
    findings: findings.map(plain),
    dismissed: dismissed.map(({ finding: one, reason }) => ({ finding: plain(one), reason })),
  }
}

/**
 * The mend of a finding of this very score; null where the score no longer has it. Where it makes a plan break a
 * promise that was kept, the promise goes along: no mend causes the next finding.
 */
export function mendOf(score: Score, findingId: string): FindingMend | null {
  const unfolding = tryExpand(score)
  const mend = judge(score, unfolding).findings.find((one) => one.id === findingId)?.mend ?? null
  if (!mend || !isPromiseKept(score, unfolding)) return mend
  return {
    ...mend,
    apply(draft) {
      mend.apply(draft)
      const after = tryExpand(draft)
      if (!isPromiseKept(draft, after)) draft.promiseMs = inMinutes(promisedLength(draft, after.expansion)) * MINUTE
    },
  }
}
