// All the ways in which a session may have been run and heard; what was heard weighs them.
import { ofKind, type Evidence } from '../evidence'
import type { Ms } from '../units'
import { likeTap, spokenBy, type Called } from './called'
import { SOFTENED, type Hypothesis } from './marks'
import { tonedBy } from './toned'

/** What was heard has nothing to do with the changes: a chime, music, talk, another session. */
const CHANCE = {
  prior: 0.3,
  marked: 0,
  drowned: 0,
  timed: 0.4,
  others: null,
  marks: [],
  strayPerMs: 1,
  logCount: 0,
  along: null,
} as const

/**
 * A timer's pitch is one of those that return, or all of them are its own; or a coach calls the changes; the last
 * hypothesis is that nothing marks any.
 * @param heard in order of time.
 * @param expected changes that the score has.
 * @param stepMs the grid on which they are weighed: both sides are seen as sharply, and no more.
 */
export function hypothesesFor(heard: readonly Evidence[], expected: number, footageMs: Ms, stepMs: Ms): Hypothesis[] {
  const called = spokenBy(ofKind(heard, 'word'), expected, footageMs, stepMs)
  const kinds = [
    withCalls(tonedBy(ofKind(heard, 'beep'), expected, footageMs, stepMs), called),
    called?.hypotheses ?? [],
    spokenBy(ofKind(heard, 'caption'), expected, footageMs, stepMs)?.hypotheses ?? [],
    likeTap(ofKind(heard, 'sample'), expected, footageMs, stepMs)?.hypotheses ?? [],
  ].filter((hypotheses) => hypotheses.length)
  const each = (1 - CHANCE.prior) / kinds.length
  return [...kinds.flat().map((one) => ({ ...one, prior: one.prior * each })), CHANCE]
}

/** Where a timer is heard and somebody calls, the calls are of the same changes or chance, and of no other session. */
function withCalls(toned: readonly Hypothesis[], called: Called | null): readonly Hypothesis[] {
  const [first] = called?.hypotheses ?? []
  if (!called || !first) return toned
  return toned.flatMap((tone) => [
    { ...tone, prior: tone.prior / 2, logCount: tone.logCount + SOFTENED * called.chanceLog },
    { ...tone, prior: tone.prior / 2, logCount: tone.logCount + SOFTENED * first.logCount, along: first },
  ])
}
