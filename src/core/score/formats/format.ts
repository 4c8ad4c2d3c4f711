// The one shape that every format has: schema, defaults, expand, describe. It also holds the pieces all formats share.
import { z } from 'zod'
import { DAY } from '../../units'
import type { Draft } from '../segment'

export const ms = z.number().int().min(0).max(DAY)
export const key = z.string().regex(/^[a-z0-9][a-z0-9-]{0,79}$/, 'a key is made of small letters, digits and hyphens')
export const name = z.string().max(300)

/** What a format may know of its surroundings. */
export interface Neighbours {
  /** The section after this one is a break, which can stand in for a last rest. */
  breakFollows: boolean
}

export interface Format<T> {
  schema: z.ZodType<T>
  defaults: (key: string, name: string) => T
  expand: (section: T, around: Neighbours) => Draft[]
  /** The section in words, without a full stop. */
  describe: (section: T) => string
}

const BLANK = {
  round: null, rounds: null, set: null, sets: null, station: null, stations: null,
  label: '', side: null, estimated: false, posture: null, effort: null,
} as const

/** A draft segment with everything unsaid left empty. */
export function draft(part: Pick<Draft, 'id' | 'kind' | 'durationMs'> & Partial<Draft>): Draft {
  return { ...BLANK, ...part }
}
