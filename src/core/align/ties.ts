// Ties of boundaries to instants of one footage: which can hold together, and which are refused. A tie made by hand is
// an anchor: nothing here, and nothing anywhere, moves it.
import { z } from 'zod'
import { EVIDENCE_KINDS } from '../evidence'
import type { ProblemFact } from '../facts'
import type { Segment } from '../score/segment'
import { LONGEST_REEL_MS } from '../limits'
import type { Ms, Share } from '../units'
import { tieName } from '../words/en/names'
import { boundariesOf, tieKey } from './boundaries'
import { longestRising } from './rising'

/** A boundary tied to an instant of footage. */
export const tieSchema = z.object({
  segmentId: z.string().min(1).max(400),
  edge: z.enum(['start', 'end']),
  footageMs: z.number().int().min(0).max(LONGEST_REEL_MS),
  /** False where somebody said that the segment was not done: it lasts nothing, where the next begins that was. */
  done: z.literal(false).optional(),
})
export type Tie = z.infer<typeof tieSchema>

const MOST_ALTERNATIVES = 20

/** A tie as it is kept: who made it, from what, and how sure it is. */
export const stitchSchema = tieSchema.extend({
  origin: z.enum(['hand', 'heard']),
  /** 0 to 1; a hand is taken at its word. */
  confidence: z.number().min(0).max(1),
  evidence: z.array(z.enum(EVIDENCE_KINDS)).max(EVIDENCE_KINDS.length),
  /** Other places where it may be, likeliest first; nothing where none is known. */
  alternatives: z
    .array(z.object({ footageMs: z.number().min(0).max(LONGEST_REEL_MS), confidence: z.number().min(0).max(1) }))
    .max(MOST_ALTERNATIVES)
    .optional(),
})
export type Stitch = z.infer<typeof stitchSchema>

/** From here on a tie is sure. */
export const SURE: Share = 0.9

/** Whether a tie is sure; a hand is taken at its word. */
export const isSure = ({ origin, confidence }: Pick<Stitch, 'origin' | 'confidence'>): boolean =>
  origin === 'hand' || confidence >= SURE

/** A tie made by hand. */
export const handStitch = ({ segmentId, edge, footageMs }: Tie): Stitch => ({
  segmentId,
  edge,
  footageMs: Math.round(footageMs),
  origin: 'hand',
  confidence: 1,
  evidence: ['hand'],
})

export const wasNotDone = ({ done }: Tie): boolean => done === false

export type TieProblem = Extract<ProblemFact, { code: 'tie-crosses' | 'tie-outside' | 'tie-twice' }>

interface Placed<T extends Tie> {
  /** Place of its boundary in the order of the score. */
  at: number
  tie: T
}

/** Ties in the order of their boundaries; those of boundaries that the score no longer has are left out. */
function inOrder<T extends Tie>(segments: readonly Segment[], ties: readonly T[]): Placed<T>[] {
  const places = placesOf(segments)
  return ties
    .flatMap((tie): Placed<T>[] => {
      const at = places.get(tieKey(tie))
      return at === undefined ? [] : [{ at, tie }]
    })
    .sort((one, other) => one.at - other.at)
}

/**
 * Why these ties cannot hold together: one lies outside the footage, stands twice, or comes before a tie of an earlier
 * change. Two changes may fall on one instant, as where a station was skipped.
 * @returns null where they can.
 */
export function tieProblem(segments: readonly Segment[], ties: readonly Tie[], footageMs: Ms): TieProblem | null {
  const named = new Map(segments.map((segment) => [segment.id, segment]))
  const nameOf = (tie: Tie): string => tieName(named.get(tie.segmentId), tie.edge)
  let before: Placed<Tie> | undefined
  for (const placed of inOrder(segments, ties)) {
    const { tie } = placed
    if (tie.footageMs < 0 || tie.footageMs > footageMs)
      return { code: 'tie-outside', tie: nameOf(tie), atMs: tie.footageMs, footageMs }
    if (before?.at === placed.at) return { code: 'tie-twice', tie: nameOf(tie) }
    if (before && before.tie.footageMs > tie.footageMs)
      return {
        code: 'tie-crosses',
        tie: nameOf(tie),
        other: nameOf(before.tie),
        atMs: tie.footageMs,
        otherMs: before.tie.footageMs,
      }
    before = placed
  }
  return null
}

/** Places of boundaries in the order of the score, by their keys. */
export type Places = ReadonlyMap<string, number>
export const placesOf = (segments: readonly Segment[]): Places =>
  new Map(boundariesOf(segments).map((boundary, at) => [tieKey(boundary), at]))

/** Whether ties of two changes stand in the order of the score; what the score no longer has is in nobody's way. */
export function holdBeside(places: Places, one: Tie, other: Tie): boolean {
  const at = places.get(tieKey(one)),
    beside = places.get(tieKey(other))
  if (at === undefined || beside === undefined) return true
  return at < beside ? one.footageMs <= other.footageMs : one.footageMs >= other.footageMs
}

export type HandTied = { ties: Stitch[]; dropped: number; problem: null } | { ties: null; problem: TieProblem }

/**
 * Adds a tie by hand, in place of an earlier one of the same change. What was only heard and cannot hold beside it
 * goes; another hand stays, and the tie is refused.
 */
export function withHandTie(segments: readonly Segment[], ties: readonly Stitch[], tie: Tie, footageMs: Ms): HandTied {
  const hand = handStitch(tie)
  const others = ties.filter((one) => tieKey(one) !== tieKey(hand))
  const hands = [...others.filter((one) => one.origin === 'hand' && !wasNotDone(one)), hand]
  const problem = tieProblem(segments, hands, footageMs)
  if (problem) return { ties: null, problem }
  const places = placesOf(segments)
  const kept = others.filter((one) => one.origin === 'hand' || holdBeside(places, one, hand))
  return { ties: [...kept, hand], dropped: others.length - kept.length, problem: null }
}

/**
 * The ties that hold together, in the order of the score: all, where none crosses another. Where some do, as in data
 * from before they were refused, the most hands that agree, then the most of what was heard between them.
 */
export function holdingTies<T extends Tie>(
  segments: readonly Segment[],
  ties: readonly T[],
  footageMs: Ms,
): Placed<T>[] {
  const inside = inOrder(segments, ties).filter(({ tie }) => tie.footageMs >= 0 && tie.footageMs <= footageMs)
  const once = inside.filter(({ at }, index) => inside[index + 1]?.at !== at)
  if (once.every(({ tie }, index) => index === 0 || (once[index - 1]?.tie.footageMs ?? 0) <= tie.footageMs)) return once
  const neverFalling = (all: readonly Placed<T>[]): Placed<T>[] => longestRising(all, ({ tie }) => tie.footageMs, true)
  const hands = neverFalling(once.filter(({ tie }) => 'origin' in tie && tie.origin === 'hand'))
  const kept: Placed<T>[] = []
  for (let gap = 0; gap <= hands.length; gap++) {
    const left = hands[gap - 1],
      right = hands[gap]
    if (left) kept.push(left)
    kept.push(
      ...neverFalling(
        once.filter(
          ({ at, tie }) =>
            at > (left?.at ?? -1) &&
            at < (right?.at ?? Infinity) &&
            tie.footageMs >= (left?.tie.footageMs ?? 0) &&
            tie.footageMs <= (right?.tie.footageMs ?? footageMs),
        ),
      ),
    )
  }
  return kept
}
