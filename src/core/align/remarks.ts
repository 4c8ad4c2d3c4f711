// What the ties of a footage say that a creator should know before it is published: intervals that ran off their plan,
// changes that nothing confirms, a timer whose beeps are in the film already. Data; `words/en` has the sentences.
import type { Segment } from '../score/segment'
import type { Ms } from '../units'
import type { EvidenceOf } from '../evidence'
import { driftOf } from './drift'
import { saidOtherwise, type SaidOtherwise } from './said'
import { storyOf } from './story'
import { SURE, type Stitch } from './ties'

export type Remark =
  /** Intervals of work or rest that lasted otherwise than planned, and the one that strays most. */
  | { code: 'ran-off'; count: number; segment: Segment; plannedMs: Ms; lastedMs: Ms }
  | { code: 'not-confirmed'; count: number }
  | { code: 'not-heard'; count: number }
  /** The coach says numbers that the score does not bear out; the first of them. */
  | { code: 'said-otherwise'; count: number; first: SaidOtherwise }
  /** Added cues would sound on top of the timer that was filmed. */
  | { code: 'own-timer'; count: number }

/** A count that is off by more than this is seen. */
const OFF_MS: Ms = 500
/** Fewer beeps at changes are no timer. */
const FEWEST_BEEPS = 4

interface Remarked {
  segments: readonly Segment[]
  /** Of one footage, in any order. */
  stitches: readonly Stitch[]
  /** Numbers that were said, in order of time. */
  said: readonly EvidenceOf<'said'>[]
  footageMs: Ms
  /** Cues are added to the footage's sound. */
  cuesOn: boolean
}

export function remarksOn({ segments, stitches, said, footageMs, cuesOn }: Remarked): Remark[] {
  if (!stitches.length) return []
  const remarks: Remark[] = []
  const { likely, open } = storyOf(segments, stitches)
  if (likely) remarks.push({ code: 'not-confirmed', count: likely })
  if (open) remarks.push({ code: 'not-heard', count: open })
  const off = driftOf(segments, stitches)
    .rows.filter(({ isSure, offMs, segment }) => isSure && isTimed(segment) && Math.abs(offMs ?? 0) > OFF_MS)
    .sort((one, other) => Math.abs(other.offMs ?? 0) - Math.abs(one.offMs ?? 0))
  const [worst] = off
  if (worst) {
    const { segment, lastedMs } = worst
    remarks.push({ code: 'ran-off', count: off.length, segment, plannedMs: segment.durationMs, lastedMs })
  }
  const otherwise = saidOtherwise(segments, stitches, said, footageMs)
  const [first] = otherwise
  if (first) remarks.push({ code: 'said-otherwise', count: otherwise.length, first })
  const beeps = stitches.filter(({ evidence, confidence }) => evidence.includes('beep') && confidence >= SURE).length
  if (cuesOn && beeps >= FEWEST_BEEPS) remarks.push({ code: 'own-timer', count: beeps })
  return remarks
}

const isTimed = ({ kind }: Segment): boolean => kind === 'work' || kind === 'rest'
