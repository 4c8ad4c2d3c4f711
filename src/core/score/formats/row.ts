// One interval of a free list, and the schema that guards it.
import { z } from 'zod'
import { POSTURES, SIDES } from '../postures'
import { KINDS } from '../segment'
import { ms, name, placeKey, remarks } from '../primitives'

export const rowSchema = z.object({
  /** Unique within the list; the end of its segment's id. */
  key: placeKey,
  kind: z.enum(KINDS),
  label: name,
  side: z.enum(SIDES).nullable(),
  round: z.number().int().min(1).max(10_000).nullable(),
  set: z.number().int().min(1).max(10_000).nullable().default(null),
  /** Null only for talk: its length is not known. */
  durationMs: ms.nullable(),
  /** The length is a guess. */
  estimated: z.boolean().default(false),
  reps: z.number().int().min(1).max(10_000).nullable().default(null),
  /** Null takes the move's own. */
  posture: z.enum(POSTURES).nullable().default(null),
  effort: z.number().int().min(1).max(5).nullable().default(null),
  ...remarks,
})
export type ListRow = z.infer<typeof rowSchema>

/** A row that has no key yet: `withKeys` gives it one where it comes to stand. */
export const newRow = (change: Partial<ListRow>): ListRow => ({
  key: '',
  kind: 'work',
  label: '',
  side: null,
  round: null,
  set: null,
  durationMs: null,
  estimated: false,
  reps: null,
  posture: null,
  effort: null,
  above: [],
  beside: '',
  ...change,
})
