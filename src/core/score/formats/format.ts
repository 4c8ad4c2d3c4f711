// The one shape that every format has: schema, defaults, expand, describe, recognise, and how its numbers are typed.
import { z } from 'zod'
import { DAY, type Ms } from '../../units'
import type { Cast } from '../cast'
import type { Segment } from '../segment'
import type { Words } from '../vocabulary'
import type { Rows } from './rows'

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

export const LAST_RESTS = ['replaced', 'kept', 'dropped'] as const
export type LastRest = (typeof LAST_RESTS)[number]
export const lastRest = z.enum(LAST_RESTS).default('replaced')
/** The name of an active rest; empty for a still one. */
export const restLabel = name.default('')

/** What a format may know of its surroundings. */
export interface Around {
  /** The section after this one is a break, which can stand in for a last rest. */
  breakFollows: boolean
  cast: Cast
  words: Words
}

export interface Format<T> {
  schema: z.ZodType<T>
  /** What the interface starts a new section with. */
  defaults: (key: string, name: string) => T
  expand: (section: T, around: Around) => Segment[]
  /** The section in words, without a full stop. */
  describe: (section: T, around: Around) => string
  /** Sections that may give exactly these intervals; the caller checks which does. */
  recognise?: (rows: Rows, key: string, name: string) => T[]
  notation: Notation
  /** The format's own words for what it counts. */
  words?: Partial<Words>
}

/** How a section is typed: `HEAD Name: field, field`, then its moves. Also what the form shows. */
export interface Notation {
  /** The word at the start of the line. */
  head: string
  fields: readonly Field[]
  /** How moves are held: none, one after another (`stations`), or in groups joined by `+` (`groups`). */
  moves: 'none' | 'flat' | 'groups'
  /** Moves in one group; 0 for any number. */
  groupSize?: readonly [low: number, high: number]
  /** What a move may carry besides its name. */
  perMove?: readonly ('workMs' | 'restMs' | 'reps' | 'swaps')[]
}

interface FieldBase {
  field: string
  /** What is typed beside the value. */
  word: string
  /** The value when nothing is typed. */
  bare: unknown
}
export type Field = FieldBase &
  (
    | { kind: 'count'; low: number; high: number; bare: number }
    | { kind: 'length'; bare: Ms }
    | { kind: 'optionalLength'; bare: Ms | null }
    /** A bare value of '' stands for null: nothing chosen. */
    | { kind: 'choice'; options: readonly string[]; bare: string }
    | { kind: 'text'; bare: string }
    | { kind: 'lengths'; bare: readonly Ms[] }
    | { kind: 'workRests'; bare: readonly { workMs: Ms; restMs: Ms }[] }
  )

export const counts = (field: string, word: string, low: number, high: number, bare = 1): Field => ({
  kind: 'count',
  field,
  word,
  low,
  high,
  bare,
})
export const length = (field: string, word: string, bare: Ms = 0): Field => ({ kind: 'length', field, word, bare })
export const choice = (field: string, word: string, options: readonly string[]): Field => ({
  kind: 'choice',
  field,
  word,
  options,
  bare: options[0] ?? '',
})
export const text = (field: string, word: string): Field => ({ kind: 'text', field, word, bare: '' })

/** Fields that most formats with a clock share. */
export const LEAD = length('leadInMs', 'lead')
export const LAST = choice('lastRest', 'last rest', LAST_RESTS)
export const ACTIVE = text('restLabel', 'rest is')
