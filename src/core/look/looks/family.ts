// The looks that there are, and how one is wished.
import { z } from 'zod'
import { keel } from './keel'
import { lantern } from './lantern'
import { linocut } from './linocut'
import type { Look } from './part'
import { porthole } from './porthole'
import { ribbon } from './ribbon'
import { slate } from './slate'
import { TONE_NAMES } from './tones'

export const LOOK_NAMES = ['linocut', 'porthole', 'ribbon', 'keel', 'slate', 'lantern'] as const
export type LookName = (typeof LOOK_NAMES)[number]

export const FAMILY: Record<LookName, Look> = { linocut, porthole, ribbon, keel, slate, lantern }

/** Within so much of each edge a television may show nothing; graphics keep out of it (EBU R 95). */
export const GRAPHICS_SAFE = 5

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
  /** Hundredths of the picture that are kept free at every edge. */
  edgeFree: z.number().min(0).max(10).default(0),
  shows: z.object(Object.fromEntries(SHOWN.map((one) => [one, z.boolean().default(true)])) as Shows).prefault({}),
})
type Shows = Record<(typeof SHOWN)[number], z.ZodDefault<z.ZodBoolean>>
export type LookWish = z.infer<typeof lookSchema>
/** A look that was given a name, for every workout. */
export const namedLookSchema = z.object({ name: z.string().trim().min(1).max(80), look: lookSchema })
export type NamedLook = z.infer<typeof namedLookSchema>
/** A look as a file. */
export const lookFileSchema = z
  .object({ jivetLook: z.literal(1), ...lookSchema.shape })
  .transform(({ jivetLook: _version, ...look }) => look)
export const USUAL_LOOK: LookWish = lookSchema.parse({})
