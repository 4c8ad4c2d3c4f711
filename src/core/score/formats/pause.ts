// A break that stands between two sections.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { draft, key, ms, name, type Format } from './format'

const schema = z.object({ format: z.literal('break'), key, name, durationMs: ms })
export type Pause = z.infer<typeof schema>

export const pause: Format<Pause> = {
  schema,
  defaults: (sectionKey, sectionName) => ({ format: 'break', key: sectionKey, name: sectionName, durationMs: 60_000 }),
  expand: (section) => [draft({
    id: `${section.key}/break`, kind: 'break', label: section.name, durationMs: section.durationMs,
  })],
  describe: (section) => `break of ${formatLength(section.durationMs)}`,
}
export const pauseSchema = schema
