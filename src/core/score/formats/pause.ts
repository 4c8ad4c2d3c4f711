// A break that stands between two sections.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { length, sectionSchema, SHOWS } from './fields'
import { defineFormat, type Format } from './format'
import { given, NOWHERE, Run } from './run'

const fields = [length('durationMs', 'long', { usual: 60_000 }), SHOWS] as const
export const pauseSchema = sectionSchema('break', fields, 'none')
type Pause = z.infer<typeof pauseSchema>

export const pause: Format<Pause> = defineFormat('break', {
  schema: pauseSchema,
  part: 'break',
  notation: { head: 'break', fields, moves: 'none' },
  works: () => 0,
  expand(section, around) {
    const run = new Run(section, around)
    run.pause('break', given(section.durationMs, 'durationMs'), NOWHERE, section.name)
    run.showing(section.shows)
    return run.segments
  },
  describe: ({ durationMs }) => `break of ${formatLength(durationMs)}`,
})
