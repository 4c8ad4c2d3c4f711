// Talk: an introduction, a demonstration, a goodbye. Its true length comes from the footage; the plan holds a guess at
// most.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { optionalLength, sectionSchema, SHOWS } from './fields'
import { defineFormat, type Format } from './format'
import { Run } from './run'

/** A guess at the length, or null for none. */
const fields = [optionalLength('guessMs', 'about', 30_000), SHOWS] as const
export const talkSchema = sectionSchema('talk', fields, 'none')
type Talk = z.infer<typeof talkSchema>

export const talk: Format<Talk> = defineFormat('talk', {
  schema: talkSchema,
  part: 'talk',
  notation: { head: 'talk', fields, moves: 'none' },
  works: () => 0,
  expand(section, around) {
    const run = new Run(section, around)
    run.talk({ place: 'talk', ms: section.guessMs ?? 0, label: section.name, spot: {}, field: ['guessMs'] })
    run.showing(section.shows)
    return run.segments
  },
  describe: ({ guessMs }) => (guessMs === null ? 'talk of open length' : `talk, about ${formatLength(guessMs)}`),
})
