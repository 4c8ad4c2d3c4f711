// What a creator wants to be heard: which rules hold, in which voice, and what was changed of single cues.
import { z } from 'zod'
import { FAMILY_NAMES } from '../sound/families/names'
import { RULES } from './cue'
import { CUE_RULES } from './rules'

/** `none` says nothing: tones alone. */
export const VOICES = ['none', 'flite', 'espeak', 'own'] as const
export type VoiceName = (typeof VOICES)[number]

/** What can be said at once. */
export const lineSchema = z.string().trim().min(1).max(300)
/** A cue is moved at most so far either way. */
export const MOST_SHIFT_MS = 10_000

const cueEditSchema = z.object({
  muted: z.boolean().default(false),
  shiftMs: z.number().int().min(-MOST_SHIFT_MS).max(MOST_SHIFT_MS).default(0),
  /** Said in place of what the rule says; null as it says it. */
  line: lineSchema.nullable().default(null),
})
export type CueEdit = z.infer<typeof cueEditSchema>

export const cueWishesSchema = z.object({
  family: z.enum(FAMILY_NAMES).default('bell'),
  voice: z.enum(VOICES).default('none'),
  /** Rules that are not as usual. */
  rules: z.partialRecord(z.enum(RULES), z.boolean()).default({}),
  /** By the ids of cues. Those of cues that are gone wait until they are back. */
  edits: z.record(z.string().max(300), cueEditSchema).default({}),
  /** Pips are left out where the coach's own timer counts already. */
  hushPips: z.boolean().default(false),
})
export type CueWishes = z.infer<typeof cueWishesSchema>

export const USUAL_CUES: CueWishes = cueWishesSchema.parse({})
export const UNEDITED: CueEdit = cueEditSchema.parse({})

export const holds = ({ rules }: Pick<CueWishes, 'rules'>, name: (typeof RULES)[number]): boolean =>
  rules[name] ?? CUE_RULES[name].usual
