// A version of a document: counted, and known by the key of the save that made it.
import { z } from 'zod'

export interface Version {
  revision: number
  /** Null where no page made it. */
  key: string | null
}

/** What a save says of the version it was made from, and of itself. */
export const saveSchema = z.object({ revision: z.number().int().min(1), key: z.uuid().nullable().default(null) })
