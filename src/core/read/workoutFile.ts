// Reads the workout file (`*.jivet.json`): JSON with a version, guarded by the score's schema.
import { closest, distance } from 'fastest-levenshtein'
import { z } from 'zod'
import type { Counted, DocumentKind } from '../facts'
import { MOST_SECTIONS, MOST_TIES } from '../limits'
import { Problem } from '../problem'
import { parsedJson } from './json'
import { FORMAT_NAMES, newSection, type Section } from '../score/formats'
import { FreshKeys, scoreSchema, type Score } from '../score/score'

export const workoutFileSchema = z.object({
  format: z.literal('jivet-workout'),
  version: z.literal(1),
  score: scoreSchema,
})

/**
 * Fields that are left out take their usual value; a field that there is none of is refused by its name.
 * @throws Problem `bad-json`, or `bad-document` with the first wrong field as its place.
 */
export function readWorkoutFile(text: string): Score {
  const given = parsedJson(text)
  const read = workoutFileSchema.safeParse(filledIn(given))
  if (!read.success) throw issueToProblem(read.error, 'workout file')
  refuseUnknown(given, read.data, '')
  return read.data.score
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** The file with what it leaves out of the score and of its sections; moves are never made up. */
function filledIn(file: unknown): unknown {
  if (!isRecord(file) || !isRecord(file.score)) return file
  const keys = new FreshKeys()
  const { sections } = file.score
  return {
    ...file,
    score: {
      ...{ version: 1, title: '', promiseMs: null, sections: [] },
      ...file.score,
      ...(Array.isArray(sections) ? { sections: sections.map((one) => filledSection(one, keys)) } : {}),
    },
  }
}

function filledSection(section: unknown, keys: FreshKeys): unknown {
  const format = isRecord(section) ? FORMAT_NAMES.find((name) => name === section.format) : undefined
  if (!isRecord(section) || !format) return section
  const name = typeof section.name === 'string' ? section.name : ''
  const key = typeof section.key === 'string' ? section.key : keys.take(name || format)
  const {
    stations: _stations,
    groups: _groups,
    rows: _rows,
    ...usual
  } = newSection(format, key, name) as Section & { stations?: unknown; groups?: unknown; rows?: unknown }
  return { ...usual, ...section }
}

/** Fields of these names are the creator's own. */
const FREE = new Set(['ranges', 'vocabulary'])

function refuseUnknown(given: unknown, read: unknown, place: string): void {
  if (Array.isArray(given) && Array.isArray(read)) {
    if (given.length === read.length) given.forEach((one, at) => refuseUnknown(one, read[at], `${place}.${at}`))
    return
  }
  if (!isRecord(given) || !isRecord(read)) return
  for (const [name, value] of Object.entries(given)) {
    const path = place ? `${place}.${name}` : name
    if (!(name in read)) {
      const near = closest(name, Object.keys(read))
      const meant = near && distance(name, near) <= 2 ? ` (is "${near}" meant?)` : ''
      const reason = `there is no field "${name}"${meant}`
      throw new Problem({ code: 'bad-document', what: 'workout file', field: path, reason }, path)
    }
    if (!FREE.has(name)) refuseUnknown(value, read[name], path)
  }
}

/** A document of ours from its text. @throws the same. */
export function readDocument<T>(text: string, schema: z.ZodType<T>, what: DocumentKind): T {
  const read = schema.safeParse(parsedJson(text))
  if (read.success) return read.data
  throw issueToProblem(read.error, what)
}

/** Lists with a limit of the whole document: the same fact, and so the same sentence, wherever they are checked. */
const COUNTED: Readonly<Record<string, { what: Counted; most: number }>> = {
  sections: { what: 'sections', most: MOST_SECTIONS },
  stitches: { what: 'ties', most: MOST_TIES },
}

/** The first complaint of a schema as a problem: the field is the place. */
export function issueToProblem(error: z.ZodError, what: DocumentKind): Problem {
  const issue = error.issues[0]
  const field = issue?.path.join('.') || 'the top'
  const counted = issue?.code === 'too_big' && COUNTED[String(issue.path.at(-1))]
  if (counted) return new Problem({ code: 'too-many', ...counted, found: null }, field)
  return new Problem({ code: 'bad-document', what, field, reason: issue?.message ?? 'unknown reason' }, field)
}
