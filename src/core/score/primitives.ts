// The smallest parts of the schemas that guard a score: lengths, names, keys, counts, remarks.
import { z } from 'zod'
import { DAY } from '../units'

/** Whole milliseconds, 24 hours at most. */
export const ms = z.number().int().min(0).max(DAY)
export const key = z.string().regex(/^[a-z0-9][a-z0-9-]{0,79}$/, 'a key is made of small letters, digits and hyphens')
export const name = z.string().max(300)
export const count = (low: number, high: number): z.ZodNumber => z.number().int().min(low).max(high)

/** A line that is kept as it was typed: empty, a comment (`#`), or what could not be understood (`?`). */
const remarkLine = z
  .string()
  .max(2000)
  .regex(/^$|^[#?][^\r\n]*$/, 'a remark is one line that starts with # or ?')
export const remarks = {
  above: z.array(remarkLine).max(50_000).default([]),
  beside: z
    .string()
    .max(2000)
    .regex(/^$|^#[^\r\n]*$/, 'a remark beside is one line that starts with #')
    .default(''),
}

/** What every section has. */
export const head = { key, name, ...remarks }

/**
 * The key of a station or row: unchanged when others come, go or change places, so that ties stay with their move.
 * Empty where none was given yet; `withKeys` gives one.
 */
export const placeKey = z
  .string()
  .regex(/^(?:[a-z0-9][a-z0-9/-]{0,79})?$/, 'a key is made of small letters, digits, hyphens and slashes')
  .default('')
