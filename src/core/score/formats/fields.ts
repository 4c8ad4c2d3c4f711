// The table of a section's numbers. A format says each once: how it is typed, between which bounds, what it is when
// nothing is typed and what a new section starts with. Schema, shorthand, form and defaults follow from it.
import { z } from 'zod'
import type { Ms } from '../../units'
import { count, head, likelyIn, ms, type Range } from '../primitives'
import { groups, stations } from './station'

interface FieldBase<Name extends string, Value> {
  field: Name
  /** What is typed beside the value. */
  word: string
  /** The value when nothing is typed. */
  bare: Value
  /** The value that a new section starts with. */
  usual: Value
}
export interface CountField<Name extends string = string> extends FieldBase<Name, number> {
  kind: 'count'
  low: number
  high: number
  /** Files may leave it out; then it is `bare`. */
  mayLack: boolean
}
export interface LengthField<Name extends string = string> extends FieldBase<Name, Ms> {
  kind: 'length'
  /** Files may leave it out; then it is `bare`. */
  mayLack: boolean
}
export interface OptionalLengthField<Name extends string = string> extends FieldBase<Name, Ms | null> {
  kind: 'optionalLength'
}
export interface ChoiceField<Name extends string = string, Option extends string = string> extends FieldBase<
  Name,
  Option
> {
  kind: 'choice'
  options: readonly Option[]
}
/** A choice that need not be made. */
export interface OptionalChoiceField<Name extends string = string, Option extends string = string> extends FieldBase<
  Name,
  Option | null
> {
  kind: 'optionalChoice'
  options: readonly Option[]
}
export interface TextField<Name extends string = string> extends FieldBase<Name, string> {
  kind: 'text'
  /** Letters. */
  most: number
}
export interface LengthsField<Name extends string = string> extends FieldBase<Name, Ms[]> {
  kind: 'lengths'
}
export interface WorkRestsField<Name extends string = string> extends FieldBase<Name, { workMs: Ms; restMs: Ms }[]> {
  kind: 'workRests'
}
/** Another section of the score, by its key; empty for none. */
export interface SectionField<Name extends string = string> extends FieldBase<Name, string> {
  kind: 'section'
}
export type Field =
  | SectionField
  | CountField
  | LengthField
  | OptionalLengthField
  | ChoiceField
  | OptionalChoiceField
  | TextField
  | LengthsField
  | WorkRestsField

interface CountOptions {
  low?: number
  high?: number
  bare?: number
  usual?: number
  mayLack?: boolean
}
/** 1 to 500 unless said otherwise. */
export const counts = <const Name extends string>(
  field: Name,
  word: string,
  { low = 1, high = 500, bare = 1, usual = bare, mayLack = false }: CountOptions = {},
): CountField<Name> => ({ kind: 'count', field, word, low, high, bare, usual, mayLack })

export const length = <const Name extends string>(
  field: Name,
  word: string,
  { bare = 0, usual = bare, mayLack = false }: { bare?: Ms; usual?: Ms; mayLack?: boolean } = {},
): LengthField<Name> => ({ kind: 'length', field, word, bare, usual, mayLack })

export const optionalLength = <const Name extends string>(
  field: Name,
  word: string,
  usual: Ms | null = null,
): OptionalLengthField<Name> => ({ kind: 'optionalLength', field, word, bare: null, usual })

/** The first option is what nothing typed means. */
export function choice<const Name extends string, const Option extends string>(
  field: Name,
  word: string,
  options: readonly Option[],
  usual?: NoInfer<Option>,
): ChoiceField<Name, Option> {
  const [bare] = options
  if (bare === undefined) throw new Error(`the choice "${field}" has no options`)
  return { kind: 'choice', field, word, options, bare, usual: usual ?? bare }
}

export const optionalChoice = <const Name extends string, const Option extends string>(
  field: Name,
  word: string,
  options: readonly Option[],
): OptionalChoiceField<Name, Option> => ({ kind: 'optionalChoice', field, word, options, bare: null, usual: null })

export const text = <const Name extends string>(field: Name, word: string, most = 300): TextField<Name> => ({
  kind: 'text',
  field,
  word,
  bare: '',
  usual: '',
  most,
})

export const sectionRef = <const Name extends string>(field: Name, word: string): SectionField<Name> => ({
  kind: 'section',
  field,
  word,
  bare: '',
  usual: '',
})

export const LAST_RESTS = ['replaced', 'kept', 'dropped'] as const
export type LastRest = (typeof LAST_RESTS)[number]

/** Fields that most formats with a clock share. */
export const LEAD = length('leadInMs', 'lead', { usual: 10_000 })
/** A lead-in before every round, pair or burst but the first, which has the section's. */
export const LEAD_EACH = length('eachLeadMs', 'lead each', { mayLack: true })
/** A lead-in that a new section does without. */
export const NO_LEAD = length('leadInMs', 'lead')
export const LAST = choice('lastRest', 'last rest', LAST_RESTS)
export const LAST_KEPT = choice('lastRest', 'last rest', LAST_RESTS, 'kept')
/** Moves that are shown in a talk or break, in the creator's words. */
export const SHOWS = text('shows', 'shows', 1000)
/** The name of an active rest; empty for a still one. */
export const ACTIVE = text('restLabel', 'rest is')

/** What a warm-up or cool-down may have beyond a run of moves: files from before may leave it out. */
export const ROUNDS_OF_PART = [
  counts('rounds', 'rounds', { mayLack: true }),
  length('restMs', 'off', { mayLack: true }),
  length('roundBreakMs', 'between', { mayLack: true }),
] as const

type ValueOf<One> = One extends { kind: 'choice'; options: readonly (infer Option)[] }
  ? Option
  : One extends { kind: 'optionalChoice'; options: readonly (infer Option)[] }
    ? Option | null
    : One extends { usual: infer Value }
      ? Value
      : never

/** How a section holds its moves: not at all, one after another, or in groups that belong together. */
export type Holding = 'none' | 'flat' | 'groups'
type Held<How extends Holding> = How extends 'flat'
  ? { stations: typeof stations }
  : How extends 'groups'
    ? { groups: typeof groups }
    : unknown

export type SectionSchema<Name extends string, Fields extends readonly Field[], How extends Holding> = z.ZodObject<
  { format: z.ZodLiteral<Name> } & typeof head & {
      [One in Fields[number] as One['field']]: z.ZodType<ValueOf<One>>
    } & Held<How>
>

/** The schema of sections of a format, from the table of its fields. */
export function sectionSchema<
  const Name extends string,
  const Fields extends readonly Field[],
  const How extends Holding,
>(format: Name, fields: Fields, how: How): SectionSchema<Name, Fields, How> {
  const held = how === 'flat' ? { stations } : how === 'groups' ? { groups } : {}
  const shape = {
    format: z.literal(format),
    ...head,
    ...Object.fromEntries(fields.map((field) => [field.field, fieldSchema(field)])),
    ...held,
  }
  // The table says at run time what the type above says of it: the compiler cannot follow `Object.fromEntries`.
  return z.object(shape) as unknown as SectionSchema<Name, Fields, How>
}

export function fieldSchema(field: Field): z.ZodType {
  switch (field.kind) {
    case 'count':
      return field.mayLack ? count(field.low, field.high).default(field.bare) : count(field.low, field.high)
    case 'length':
      return field.mayLack ? ms.default(field.bare) : ms
    case 'optionalLength':
      return ms.nullable()
    case 'choice':
      return z.enum(field.options).default(field.bare)
    case 'optionalChoice':
      return z.enum(field.options).nullable().default(null)
    case 'text':
      return z.string().max(field.most).default('')
    case 'section':
      return z.string().max(80).default('')
    case 'lengths':
      return z.array(ms).min(1).max(500)
    case 'workRests':
      return z
        .array(z.object({ workMs: ms, restMs: ms }))
        .min(1)
        .max(500)
  }
}

/** A field's value in a section, a station or any other thing that has fields. */
export const valueAt = (of: object, field: string): unknown => Reflect.get(of, field)

/** The kinds of field of which a range may be all that is known. */
export const holdsRanges = ({ kind }: Field): boolean =>
  kind === 'count' || kind === 'length' || kind === 'optionalLength'

export const likelyOf = ({ kind }: Field, range: Range): number => likelyIn(range, kind === 'count' ? 1 : 1000)
