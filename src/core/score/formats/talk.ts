// Talk: an introduction, a demonstration, a goodbye. Its true length comes from the footage; the plan holds a guess at most.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { draft, key, ms, name, type Format } from './format'

const schema = z.object({
  format: z.literal('talk'),
  key,
  name,
  /** A guess at the length, or null for none. */
  guessMs: ms.nullable(),
})
export type Talk = z.infer<typeof schema>

export const talk: Format<Talk> = {
  schema,
  defaults: (sectionKey, sectionName) => ({ format: 'talk', key: sectionKey, name: sectionName, guessMs: 30_000 }),
  expand: (section) => [draft({
    id: `${section.key}/talk`, kind: 'talk', label: section.name, durationMs: section.guessMs ?? 0, estimated: true,
  })],
  describe: (section) => (section.guessMs === null ? 'talk of open length' : `talk, about ${formatLength(section.guessMs)}`),
}
export const talkSchema = schema
