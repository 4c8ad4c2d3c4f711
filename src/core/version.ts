// A version of a document: counted, and known by the key of the save that made it.
import { z } from 'zod'

export interface Version {
  revision: number
  /** Null where no page made it. */
  key: string | null
}

/** How many saves a page may wait for: a server that is away for long has had none of them but one of the newest. */
export const MOST_UNANSWERED = 100

/**
 * What a save says of the version it was made from, and of itself. A page that does not know yet what came of its
 * earlier saves names their keys: it was made after them as well.
 */
export const saveSchema = z.object({
  revision: z.number().int().min(1),
  key: z.uuid().nullable().default(null),
  after: z.array(z.uuid()).max(MOST_UNANSWERED).default([]),
})

export type Save = z.input<typeof saveSchema> & Version

/** Whether this very save has come before: its answer was lost. */
export const isKnown = (now: Version, { key }: Save): boolean => key !== null && now.key === key

/** Whether a save was made from what there is now; otherwise somebody else saved in between. */
export const isMadeFrom = (now: Version, { revision, after = [] }: Save): boolean =>
  now.revision === revision || (now.key !== null && after.includes(now.key))
