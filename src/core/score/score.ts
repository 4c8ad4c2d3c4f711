// The score: the plan as authored. One schema guards every way in (form, file, shorthand, database).
import { z } from 'zod'
import { MOST_SECTIONS } from '../limits'
import { castOf, type Cast } from './cast'
import { formatNamed, notationOf, partOf, sectionSchema, type FormatName, type Section } from './formats'
import { likelyOf, valueAt } from './formats/fields'
import type { Around } from './formats/format'
import { withTrueJoins } from './formats/joined'
import { withKeys } from './formats/keys'
import type { Follows } from './formats/lastRest'
import { moveSchema } from './move'
import { needsSchema } from './needs'
import { ms, name, remarks } from './primitives'
import { readingsSchema } from './schools'
import type { Totals } from './segment'
import type { Ms } from '../units'
import { vocabularySchema, wordsFor, type Words } from './vocabulary'

export const DEMO_PLACES = ['none', 'upFront', 'beforeBlocks', 'inRests'] as const
export const CAUTION_PLACES = ['both', 'card', 'description', 'none'] as const
export const COUNTS = ['down', 'up'] as const
/** Which length of the video its promise is of. */
export const PROMISES = ['video', 'workout'] as const
/** Which length a count shows, where footage ran otherwise than planned. */
export const COUNTED_LENGTHS = ['filmed', 'planned'] as const

/** Letters of a finding's id, which may name several moves. */
export const LONGEST_FINDING = 10_000

export const scoreSchema = z
  .object({
    version: z.literal(1),
    title: name,
    /** The length announced to viewers, or null while nothing is promised. */
    promiseMs: ms.nullable(),
    /** Of the whole video, or of the workout without talk, warm-up and cool-down. */
    promiseOf: z.enum(PROMISES).default('video'),
    sections: z.array(sectionSchema).max(MOST_SECTIONS),
    /** Where moves are shown before they are done, and a guess at what one showing takes. */
    demos: z.object({ place: z.enum(DEMO_PLACES).default('none'), eachMs: ms.default(10_000) }).prefault({}),
    /** The facts of moves as this workout keeps them; they stand before the library's. */
    moves: z.array(moveSchema).max(2000).default([]),
    vocabulary: vocabularySchema.prefault({}),
    readings: readingsSchema.prefault({}),
    count: z.enum(COUNTS).default('down'),
    /** `filmed`: the true length, but for work that ran to its plan within a moment. `planned`: what was announced. */
    countOf: z.enum(COUNTED_LENGTHS).default('filmed'),
    /** Where viewers read the cautions. */
    caution: z.enum(CAUTION_PLACES).default('both'),
    /** The series that it is part of, and what comes next in it; empty for none. An end card says the latter. */
    series: z.object({ name: name.default(''), next: name.default('') }).prefault({}),
    /** The creator's own numbers in place of the usual ones. */
    needs: needsSchema.prefault({}),
    /** Findings that were looked at and set aside, with the reason given. */
    dismissed: z
      .array(z.object({ finding: z.string().max(LONGEST_FINDING), reason: z.string().max(1000) }))
      .max(2000)
      .default([]),
    /** Lines before the title. */
    above: remarks.above,
    /** Lines after the last section. */
    below: remarks.above,
  })
  .superRefine((score, ctx) => {
    const seen = new Set<string>()
    score.sections.forEach((section, index) => {
      if (seen.has(section.key))
        ctx.addIssue({
          code: 'custom',
          path: ['sections', index, 'key'],
          message: `the key "${section.key}" is used twice`,
        })
      seen.add(section.key)
    })
  })
  // Scores from before stations had keys of their own get them where they are read; a range that its number has left is
  // none any more.
  .overwrite((score) => ({
    ...score,
    sections: score.sections.map((section) => withTrueRanges(withTrueJoins(withKeys(section)))),
  }))
export type Score = z.infer<typeof scoreSchema>

/** Which of its sums a promise is held against; 0 where there are none. */
export const promisedLength = (
  { promiseOf }: Pick<Score, 'promiseOf'>,
  totals: Pick<Totals, 'totalMs' | 'workoutMs'> | null,
): Ms => (promiseOf === 'workout' ? totals?.workoutMs : totals?.totalMs) ?? 0

function withTrueRanges(section: Section): Section {
  const names = Object.keys(section.ranges)
  if (!names.length) return section
  const { fields } = notationOf(section.format)
  const holds = (name: string): boolean => {
    const field = fields.find((one) => one.field === name),
      range = section.ranges[name]
    return Boolean(field && range && likelyOf(field, range) === valueAt(section, name))
  }
  return { ...section, ranges: Object.fromEntries(Object.entries(section.ranges).filter(([name]) => holds(name))) }
}

export const emptyScore = (title: string): Score =>
  scoreSchema.parse({ version: 1, title, promiseMs: null, sections: [] })

/** A name in small letters and hyphens, for keys. */
export const slugOf = (label: string): string =>
  label
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60) || 'part'

/** Keys for new sections, one after another: the name's slug, with a number when it is taken. Linear over all. */
export class FreshKeys {
  private readonly taken: Set<string>
  private readonly next = new Map<string, number>()

  constructor(taken: Iterable<string> = []) {
    this.taken = new Set(taken)
  }

  take(label: string): string {
    const stem = slugOf(label)
    let number = this.next.get(stem) ?? 1
    while (this.taken.has(number === 1 ? stem : `${stem}-${number}`)) number++
    this.next.set(stem, number + 1)
    const key = number === 1 ? stem : `${stem}-${number}`
    this.taken.add(key)
    return key
  }

  has(key: string): boolean {
    return this.taken.has(key)
  }

  add(key: string): void {
    this.taken.add(key)
  }
}

/** A key for one new section. Keys stay when names change, so that stitches stay tied. */
export const freshKey = (label: string, taken: Iterable<string>): string => new FreshKeys(taken).take(label)

/** What comes after the section at `index`. */
export function followsAt(sections: readonly Section[], index: number): Follows {
  const next = sections[index + 1]
  return next ? (partOf(next) === 'break' ? 'break' : 'section') : 'nothing'
}

/** What the section at `index` may know of its score. */
export const aroundOf = (score: Score, index: number, cast: Cast = castOf(score.moves)): Around => ({
  follows: followsAt(score.sections, index),
  cast,
  words: wordsFor(score.vocabulary, wordsOf(score.sections[index]?.format)),
})

/** The same for a section of a format, wherever it will stand. */
export const aroundFormat = (
  { vocabulary, moves }: Pick<Score, 'vocabulary' | 'moves'>,
  format: FormatName,
  follows: Follows,
): Around => ({ follows, cast: castOf(moves), words: wordsFor(vocabulary, wordsOf(format)) })

const wordsOf = (format: FormatName | undefined): Partial<Words> => (format ? (formatNamed(format).words ?? {}) : {})
