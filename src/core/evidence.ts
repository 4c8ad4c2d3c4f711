// Evidence: something heard or seen in a footage at an instant. One union for every kind, guarded where it is stored.
import { z } from 'zod'
import type { Ms } from './units'

/** What every kind has. Times are footage time, in milliseconds with a fraction. */
const instant = {
  atMs: z.number().min(0),
  /** Standard deviation of the time: how far the true instant may be. */
  spreadMs: z.number().min(0),
  /** How far it stands out from what surrounds it, 0 to 1. */
  strength: z.number().min(0).max(1),
}

/** What a coach calls out that says something of the timeline. */
export const CALLS = ['work', 'rest', 'ten', 'next', 'half'] as const
export type Call = (typeof CALLS)[number]

/** What a number that was said counts; lengths are in seconds. */
export const COUNTED = ['seconds', 'reps', 'rounds'] as const
export type Counted = (typeof COUNTED)[number]

export const evidenceSchema = z.discriminatedUnion('kind', [
  /** A steady tone with a sudden start, as of an interval timer. */
  z.object({ kind: z.literal('beep'), ...instant, hz: z.number().positive(), durationMs: z.number().min(0) }),
  /** A call of the coach; `strength` is how probable it is that this was called, and here. */
  z.object({ kind: z.literal('word'), ...instant, word: z.enum(CALLS) }),
  /** A call found by its likeness to another. */
  z.object({ kind: z.literal('sample'), ...instant, word: z.enum(['work', 'rest']), likeMs: z.number().min(0) }),
  /** A call in captions that came with the footage, with what was said around it. */
  z.object({ kind: z.literal('caption'), ...instant, word: z.enum(CALLS), text: z.string().max(2000) }),
  /** A number in such captions: a length in seconds, reps or rounds. It marks no change. */
  z.object({
    kind: z.literal('said'),
    ...instant,
    amount: z.number().positive(),
    counted: z.enum(COUNTED),
    text: z.string().max(2000),
  }),
  /** A chirp that Jivet itself sounded on the floor; `code` is the place of its change in the score, from 1 on. */
  z.object({ kind: z.literal('chirp'), ...instant, code: z.number().int().min(0) }),
  /** The figure begins or ends to move. */
  z.object({ kind: z.literal('motion'), ...instant, begins: z.boolean() }),
  /** Somebody speaks from here on. */
  z.object({ kind: z.literal('speech'), ...instant, durationMs: z.number().min(0) }),
  /** Music plays from here on. */
  z.object({ kind: z.literal('music'), ...instant, durationMs: z.number().min(0) }),
  /** A line of the floor's own record. */
  z.object({ kind: z.literal('log'), ...instant, event: z.string().max(100) }),
  /** Somebody pointed at it. */
  z.object({ kind: z.literal('hand'), ...instant }),
])
export type Evidence = z.infer<typeof evidenceSchema>
export type EvidenceKind = Evidence['kind']
export type EvidenceOf<Kind extends EvidenceKind> = Extract<Evidence, { kind: Kind }>

export const EVIDENCE_KINDS = [
  'beep',
  'word',
  'sample',
  'caption',
  'said',
  'chirp',
  'motion',
  'speech',
  'music',
  'log',
  'hand',
] as const satisfies readonly EvidenceKind[]

/** Sorts by time. */
export const byTime = (one: { atMs: Ms }, other: { atMs: Ms }): number => one.atMs - other.atMs

/** The evidence of one kind, in the order given. */
export const ofKind = <Kind extends EvidenceKind>(all: readonly Evidence[], kind: Kind): EvidenceOf<Kind>[] =>
  all.filter((one): one is EvidenceOf<Kind> => one.kind === kind)

/** Of the engine that hears; a footage heard by an older one is heard again. */
export const EVIDENCE_VERSION = 6
