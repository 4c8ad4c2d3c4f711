// How loud what was filmed and what is added are, in the preview and in the render alike.
import { z } from 'zod'

/** 0 silences, 1 leaves as it is. */
const share = z.number().min(0).max(1)

export const mixSchema = z.object({
  /** The sound of the footage. */
  voice: share.default(1),
  /** Pips and tones. */
  cues: share.default(1),
  /** Off: nothing is added to the footage's sound. */
  cuesOn: z.boolean().default(true),
})
export type Mix = z.infer<typeof mixSchema>

export const USUAL_MIX: Mix = mixSchema.parse({})

/** The level that cues really have. */
export const cueLevel = ({ cues, cuesOn }: Mix): number => (cuesOn ? cues : 0)
