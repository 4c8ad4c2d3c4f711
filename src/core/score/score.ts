// The score: the plan as authored. One schema guards every way in (form, file, database).
import { z } from 'zod'
import { sectionSchema } from './formats'
import { ms, name } from './formats/format'

export const scoreSchema = z.object({
  version: z.literal(1),
  title: name,
  /** The length announced to viewers, or null while nothing is promised. */
  promiseMs: ms.nullable(),
  sections: z.array(sectionSchema).max(500),
}).superRefine((score, ctx) => {
  const seen = new Set<string>()
  score.sections.forEach((section, index) => {
    if (seen.has(section.key)) ctx.addIssue({ code: 'custom', path: ['sections', index, 'key'], message: `the key "${section.key}" is used twice` })
    seen.add(section.key)
  })
})
export type Score = z.infer<typeof scoreSchema>

export const emptyScore = (title: string): Score => ({ version: 1, title, promiseMs: null, sections: [] })

/**
 * A key for a new section or station: the name in small letters and hyphens, with a number when it is taken.
 * Keys stay when names change, so that stitches stay tied.
 */
export function freshKey(label: string, taken: Iterable<string>): string {
  const used = new Set(taken)
  const stem = label.normalize('NFKD').replace(/[\u0300-\u036f]/g, '').toLowerCase()
    .replace(/[^a-z0-9]+/g, '-').replace(/^-+|-+$/g, '').slice(0, 60) || 'part'
  for (let number = 1; ; number++) {
    const candidate = number === 1 ? stem : `${stem}-${number}`
    if (!used.has(candidate)) return candidate
  }
}
