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

/** Between two whole numbers: milliseconds of a length, or a count. */
export type Range = [low: number, high: number]

/**
 * What one plans with where only a range is known: the middle, whole seconds for lengths.
 * @param step 1000 for lengths in milliseconds, 1 for counts.
 */
export const likelyIn = ([low, high]: Range, step: number): number => Math.round((low + high) / 2 / step) * step

const rangeOf = z
  .tuple([z.number().int().min(0).max(DAY), z.number().int().min(0).max(DAY)])
  .refine(([low, high]) => low < high, 'a range goes from a smaller to a larger number')

/** Numbers of which only a range is known, by field; the field itself holds the likely value. */
export const ranges = z.record(z.string().max(40), rangeOf).default({})

/** What every section has. */
export const head = {
  key,
  name,
  /**
   * Numbers of which only a range is known ("10 to 20 s by fitness", "2 to 4 rounds"), by field. The field itself holds
   * the likely value, the middle; a range that its field has left is dropped.
   */
  ranges,
  /** Rests and breaks that last otherwise than their like, by where they stand: `r2/s3/rest`. */
  gaps: z.record(z.string().regex(/^[a-z0-9][a-z0-9/-]{0,160}$/), ms).default({}),
  ...remarks,
}

/**
 * The key of a station or row: unchanged when others come, go or change places, so that ties stay with their move.
 * Empty where none was given yet; `withKeys` gives one.
 */
export const placeKey = z
  .string()
  .regex(/^(?:[a-z0-9][a-z0-9/-]{0,79})?$/, 'a key is made of small letters, digits, hyphens and slashes')
  .default('')
