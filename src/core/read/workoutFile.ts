// Reads the workout file (`*.jivet.json`): JSON with a version, guarded by the score's schema.
import { z } from 'zod'
import type { Counted, DocumentKind } from '../facts'
import { MOST_SECTIONS, MOST_TIES } from '../limits'
import { Problem } from '../problem'
import { parsedJson } from './json'
import { scoreSchema, type Score } from '../score/score'

export const workoutFileSchema = z.object({
  format: z.literal('jivet-workout'),
  version: z.literal(1),
  score: scoreSchema,
})

/** @throws Problem `bad-json`, or `bad-document` with the first wrong field as its place. */
export const readWorkoutFile = (text: string): Score => readDocument(text, workoutFileSchema, 'workout file').score

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
