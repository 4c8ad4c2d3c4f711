// The one shape that every format has. Whatever the rest needs to know of a format is asked of it: nobody else switches
// on its name.
import type { z } from 'zod'
import type { FormatFact, MendFact } from '../../facts'
import type { Ms } from '../../units'
import type { Cast } from '../cast'
import type { Readings } from '../schools'
import type { Segment } from '../segment'
import type { Words } from '../vocabulary'
import type { Field, Holding } from './fields'
import type { Follows } from './lastRest'
import type { Rows } from './rows'

/** What a format may know of its surroundings. */
export interface Around {
  /** A break can stand in for a last rest, and where nothing follows there is none. */
  follows: Follows
  cast: Cast
  words: Words
}

/** How a section is typed: `HEAD Name: field, field`, then its moves. Also what the form shows. */
export interface Notation {
  /** The word at the start of the line. */
  head: string
  fields: readonly Field[]
  moves: Holding | 'rows'
  /** Moves in one group; 0 for any number. */
  groupSize?: readonly [low: number, high: number]
  /** What a move may carry besides its name. */
  perMove?: readonly ('workMs' | 'restMs' | 'reps' | 'swaps')[]
}

/** The part that a section plays in a session. */
export type Part = 'main' | 'talk' | 'break' | 'warmUp' | 'coolDown'

/** Words of a title that a format may keep. */
export type TitleWord = 'tabata' | 'emom' | 'ladder' | 'pyramid' | 'finisher' | 'warmUp' | 'coolDown'

/** Something wrong with a format's own numbers. `id` need only be unlike within the check and the section. */
export interface OwnFinding<T> {
  check: string
  id: string
  severity: 'error' | 'warning' | 'note'
  fact: FormatFact
  mend: { fact: MendFact; apply: (section: T) => void } | null
}

/** The numbers that a promise is solved for, by field, and the bounds of the count. */
export interface Knobs {
  times: string
  work: string
  rest: string | null
  timesLow: number
  timesHigh: number
  /** All moves in one group, not one or two in each. */
  oneGroup?: boolean
}

export interface Format<T> {
  schema: z.ZodType<T>
  notation: Notation
  part: Part
  /** What the interface starts a new section with. */
  defaults: (key: string, name: string) => T
  expand: (section: T, around: Around) => Segment[]
  /** At most so many intervals of work, told without unfolding. */
  works: (section: T) => number
  /** The section in words, without a full stop. */
  describe: (section: T, around: Around) => string
  /** Sections that may give exactly these intervals; the caller checks which does. */
  recognise?: (rows: Rows, key: string, name: string) => T[]
  /** The format's own words for what it counts. */
  words?: Partial<Words>
  /** Counts a climb and its descent as one round, in place, where the format has such. */
  thereAndBack?: (section: T, segments: readonly Segment[]) => void
  /** What is wrong with its own numbers. */
  findings?: (section: T, around: Around) => OwnFinding<T>[]
  /** The words of a title that this section makes true. */
  keeps?: (section: T, readings: Readings) => readonly TitleWord[]
  solve?: Knobs
  /** Reps that a new move of a group starts with, by its place in the group. */
  usualReps?: (place: number) => number | null
}

type Definition<T> = Omit<Format<T>, 'defaults' | 'part'> & { part?: Part }

/** Completes a format: its defaults follow from the table of its fields. */
export function defineFormat<T extends { key: string; name: string }>(
  name: string,
  definition: Definition<T>,
): Format<T> {
  const { notation, schema } = definition
  let usual: T | null = null
  const defaults = (key: string, label: string): T => {
    usual ??= schema.parse({
      format: name,
      key: 'new',
      name: '',
      ...Object.fromEntries(notation.fields.map((field) => [field.field, field.usual])),
      ...(notation.moves === 'flat' ? { stations: [] } : notation.moves === 'groups' ? { groups: [] } : {}),
      ...(notation.moves === 'rows' ? { rows: [] } : {}),
    })
    return { ...structuredClone(usual), key, name: label }
  }
  return { part: 'main', ...definition, defaults }
}

export const knobs = (times: string, work: string, rest: string | null, more: Partial<Knobs> = {}): Knobs => ({
  times,
  work,
  rest,
  timesLow: 1,
  timesHigh: 12,
  ...more,
})

/** Any work that is twice its rest, and any short burst: what the word of the title means to some. */
export const twiceTheRest = (workMs: Ms, restMs: Ms): boolean => restMs > 0 && workMs === 2 * restMs
export const shortBurst = (workMs: Ms, restMs: Ms): boolean => restMs > 0 && workMs <= 30_000

/** What formats with one work and one rest keep of the disputed word. */
export const keepsTabata = (
  { workMs, restMs }: { workMs: Ms; restMs: Ms },
  { tabata }: Readings,
): readonly TitleWord[] =>
  (tabata === 'double' && twiceTheRest(workMs, restMs)) || (tabata === 'burst' && shortBurst(workMs, restMs))
    ? ['tabata']
    : []
