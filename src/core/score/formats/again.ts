// Again: a section of the same score once more, as it is there. What it holds is found where the score is unfolded
// (score/again.ts); alone it holds nothing.
import type { z } from 'zod'
import { sectionRef, sectionSchema } from './fields'
import { defineFormat, type Format } from './format'

const fields = [sectionRef('of', 'of')] as const
export const againSchema = sectionSchema('again', fields, 'none')
type Again = z.infer<typeof againSchema>

export const again: Format<Again> = defineFormat('again', {
  schema: againSchema,
  notation: { head: 'again', fields, moves: 'none' },
  works: () => 0,
  expand: () => [],
  describe: ({ of }) => (of ? `"${of}" once more` : 'nothing chosen yet'),
})
