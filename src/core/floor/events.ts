// What is told to a session on the floor, as it is recorded. Times are session time: milliseconds since the session was
// opened, by one clock that never goes back.
import { z } from 'zod'
import { byTime } from '../evidence'
import { DAY, MINUTE, SECOND } from '../units'

const told = { key: z.uuid(), atMs: z.number().int().min(0).max(DAY) }
/**
 * Place in the plan of the segment that the command was meant for. A command that comes after its segment has ended, as
 * from a second device, or pressed as the clock ran out, changes nothing.
 */
const meant = { on: z.number().int().min(0) }
const about = { segmentId: z.string().min(1).max(400) }

export const MARKS = ['good', 'again'] as const
export type Mark = (typeof MARKS)[number]

export const RESULTS = ['reps', 'rung', 'weight'] as const
export type ResultOf = (typeof RESULTS)[number]

export const floorEventSchema = z.discriminatedUnion('kind', [
  /** Counts in, and begins. */
  z.object({ kind: z.literal('start'), ...told, countInMs: z.number().int().min(SECOND).max(MINUTE) }),
  z.object({ kind: z.literal('hold'), ...told, ...meant }),
  z.object({ kind: z.literal('goOn'), ...told, ...meant }),
  /** Done with what has no clock: own pace, talk, a break that was opened. */
  z.object({ kind: z.literal('next'), ...told, ...meant }),
  /** Ends the segment early, whatever it is. */
  z.object({ kind: z.literal('skip'), ...told, ...meant }),
  /** To the segment before, counted in. */
  z.object({ kind: z.literal('back'), ...told, ...meant }),
  /** The work that runs, or ran last, once more, counted in. */
  z.object({ kind: z.literal('repeat'), ...told, ...meant }),
  /** To the beginning of the round, counted in. */
  z.object({ kind: z.literal('restartRound'), ...told, ...meant }),
  /** Takes the clock off a rest, break or talk: it lasts until `next`. */
  z.object({ kind: z.literal('open'), ...told, ...meant }),
  z.object({ kind: z.literal('end'), ...told }),
  /** What a take was worth: one marked `again` gives way to the next. */
  z.object({ kind: z.literal('mark'), ...told, ...about, mark: z.enum(MARKS) }),
  z.object({ kind: z.literal('note'), ...told, ...about, text: z.string().trim().min(1).max(500) }),
  /** Reps or rung reached, weight used (in kilograms). */
  z.object({ kind: z.literal('result'), ...told, ...about, of: z.enum(RESULTS), value: z.number().min(0).max(10_000) }),
  /** A heart-rate strap's measurement; `simulated` where it was a stand-in's. */
  z.object({
    ...{ kind: z.literal('heart'), ...told, bpm: z.number().int().min(0).max(65_535), simulated: z.boolean() },
  }),
])
export type FloorEvent = z.infer<typeof floorEventSchema>
export type FloorEventKind = FloorEvent['kind']

/** In the order in which they were told; those of one instant in the order of their keys, on every device alike. */
export const inOrderTold = (events: readonly FloorEvent[]): FloorEvent[] =>
  [...events].sort((one, other) => byTime(one, other) || (one.key < other.key ? -1 : 1))
