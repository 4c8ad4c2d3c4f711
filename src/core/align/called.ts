// Hypotheses of a coach who calls the changes, as heard, as it stands in captions, or as it sounds like a tap.
import type { EvidenceOf } from '../evidence'
import type { Ms, Share } from '../units'
import {
  EITHER,
  FEWEST_MARKS,
  logPoisson,
  logWithoutScore,
  oddsOf,
  runsOf,
  strayRate,
  type Begins,
  type Calling,
  type Hypothesis,
  type Mark,
  type Run,
} from './marks'

/** A coach calls the changes, by a silent watch or by feeling. */
const SPOKEN: readonly Run[] = [
  { prior: 0.5, marked: 0.93, drowned: 0, timed: 0.9, others: null },
  { prior: 0.25, marked: 0.93, drowned: 0, timed: 0.5, others: null },
  { prior: 0.25, marked: 0.6, drowned: 0, timed: 0.8, others: null },
]
/** What sounds like a tap marks changes of its kind, and now and then, as where both are counted in, of the other. */
const sampled = (than: Begins): readonly Run[] => [
  { prior: 0.4, marked: 0.9, drowned: 0, timed: 0.9, others: { than, marked: 0.05 } },
  { prior: 0.4, marked: 0.9, drowned: 0, timed: 0.9, others: { than, marked: 0.55 } },
  { prior: 0.2, marked: 0.6, drowned: 0, timed: 0.8, others: { than, marked: 0.3 } },
]

/** A call of one kind is, now and then, of the other. */
const MISCALLED: Share = 0.04
/** Without any plan, work and rest take turns as often as this. */
const TURNS: Share = 0.85
/** A call comes this long before or after the change that it is meant for. */
const CALLED_MS: Ms = 150
/** Less than this is no call. */
const LEAST_CALLED: Share = 0.05
/** However clear, a call may be a sentence that sounds like one each time that it is said. */
const MOST_CALLED: Share = 0.7
const CLEAR: Share = 0.2
/** A call that is clear is somebody's; one that is not is chance, with this score and without it. */
const isClear = ({ boundaryLikelihood }: Mark): boolean => boundaryLikelihood >= CLEAR

export interface Called {
  hypotheses: Hypothesis[]
  /** How much likelier the calls are by chance alone than as those of any session. */
  chanceLog: number
}

export function spokenBy(calls: readonly Calling[], expected: number, footageMs: Ms, stepMs: Ms): Called | null {
  return calledRuns(SPOKEN, { marks: calledMarks(calls), labelsLog: labelsWithoutScore, expected, footageMs, stepMs })
}

/**
 * How much likelier the order of work and rest is without this score than if either came at every call. They take
 * turns, as in another session; or one comes more often, as where a sentence is heard as a call whenever it is said.
 */
function labelsWithoutScore(clear: readonly Mark[]): number {
  const mean = clear.reduce((sum, { workShare }) => sum + workShare, 0) / clear.length
  let turns = 0,
    often = 0
  clear.forEach(({ workShare }, index) => {
    const before = clear[index - 1]?.workShare
    const same = before === undefined ? EITHER : workShare * before + (1 - workShare) * (1 - before)
    turns += Math.log((same * (1 - TURNS) + (1 - same) * TURNS) / EITHER)
    often += Math.log((workShare * mean + (1 - workShare) * (1 - mean)) / EITHER)
  })
  return Math.max(turns, often)
}

/** Likes of taps; of more than one kind of change, they may mark all. */
export function likeTap(
  likes: readonly EvidenceOf<'sample'>[],
  expected: number,
  footageMs: Ms,
  stepMs: Ms,
): Called | null {
  const marks = likes
    .filter(({ strength }) => strength >= LEAST_CALLED)
    .map(({ kind, atMs, spreadMs, strength }): Mark => ({
      ...{ kind, atMs, spreadMs: Math.hypot(spreadMs, CALLED_MS), workShare: EITHER, boundaryLikelihood: strength },
    }))
  const words = new Set(likes.map(({ word }) => word))
  const [word = null] = words
  const runs = words.size > 1 ? SPOKEN : sampled(word)
  return calledRuns(runs, { marks, labelsLog: () => 0, expected, footageMs, stepMs })
}

interface Calls {
  marks: readonly Mark[]
  /** What the order of work and rest in clear calls says for a session of another score. */
  labelsLog: (clear: readonly Mark[]) => number
  expected: number
  footageMs: Ms
  stepMs: Ms
}

/** Without this score, clear calls are of a session of another one, which was called as well as this one would be. */
function calledRuns(runs: readonly Run[], { marks, labelsLog, expected, footageMs, stepMs }: Calls): Called | null {
  const clear = marks.filter(isClear)
  if (clear.length < FEWEST_MARKS) return null
  const spreadMs = Math.SQRT2 * Math.hypot(marks[0]?.spreadMs ?? CALLED_MS, stepMs / 2)
  const count = marks.length
  const unclear = (count - clear.length) * Math.log(strayRate(count, expected, footageMs))
  const clearLog = logWithoutScore(clear, footageMs, spreadMs, oddsOf) + labelsLog(clear)
  const chanceLog = logPoisson(clear.length, clear.length / footageMs, footageMs) - clearLog
  const hypotheses = runsOf(runs, { marks, count, nullLog: clearLog + unclear, expected, footageMs })
  return { hypotheses, chanceLog: Math.min(0, chanceLog) }
}

/** Calls of work and of rest that are heard at one instant are one call of either. */
function calledMarks(calls: readonly Calling[]): Mark[] {
  const marks: Mark[] = []
  for (const { kind, word, atMs, spreadMs, strength } of calls) {
    if (word !== 'work' && word !== 'rest') continue
    const last = marks.at(-1)
    const workShare = word === 'work' ? 1 : 0
    const heard = { kind, atMs, spreadMs: Math.hypot(spreadMs, CALLED_MS) }
    if (last && atMs - last.atMs < CALLED_MS) {
      const sum = last.boundaryLikelihood + strength
      const share = (last.workShare * last.boundaryLikelihood + workShare * strength) / sum
      marks[marks.length - 1] = { ...last, boundaryLikelihood: Math.min(1, sum), workShare: share }
    } else marks.push({ ...heard, boundaryLikelihood: strength, workShare })
  }
  return marks
    .filter(({ boundaryLikelihood }) => boundaryLikelihood >= LEAST_CALLED)
    .map((mark) => ({
      ...mark,
      boundaryLikelihood: MOST_CALLED * mark.boundaryLikelihood,
      workShare: MISCALLED + (1 - 2 * MISCALLED) * mark.workShare,
    }))
}
