// The looks that there are, and how one is wished.
import { z } from 'zod'
import { lantern } from './lantern'
import { linocut } from './linocut'
import type { Look } from './part'
import { porthole } from './porthole'
import { slate } from './slate'
import { TONE_NAMES } from './tones'

export const LOOK_NAMES = ['linocut', 'porthole', 'slate', 'lantern'] as const
export type LookName = (typeof LOOK_NAMES)[number]

export const FAMILY: Record<LookName, Look> = { linocut, porthole, slate, lantern }

/** What of the overlay is shown. */
export const SHOWN = ['counters', 'next', 'lines', 'titles', 'whole'] as const

/** A look as it is kept, saved and handed on. */
export const lookSchema = z.object({
  look: z.enum(LOOK_NAMES).default('linocut'),
  tone: z.enum(TONE_NAMES).default('dark'),
  /** Times the usual size. */
  size: z.number().min(0.7).max(2).default(1),
  /** Hundredths of the picture's height that are kept free at its foot, for a host's own controls. */
  footFree: z.number().min(0).max(30).default(0),
  shows: z.object(Object.fromEntries(SHOWN.map((one) => [one, z.boolean().default(true)])) as Shows).prefault({}),
})
type Shows = Record<(typeof SHOWN)[number], z.ZodDefault<z.ZodBoolean>>
export type LookWish = z.infer<typeof lookSchema>
/** A look as a file. */
export const lookFileSchema = z
  .object({ jivetLook: z.literal(1), ...lookSchema.shape })
  .transform(({ jivetLook: _version, ...look }) => look)
export const USUAL_LOOK: LookWish = lookSchema.parse({})
