// One interval of a free list, and the schema that guards it.
import { z } from 'zod'
import { POSTURES, SIDES } from '../postures'
import { KINDS } from '../segment'
import { ms, name, remarks } from './format'

export const rowSchema = z.object({
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
