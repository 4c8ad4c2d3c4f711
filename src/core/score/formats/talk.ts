// Talk: an introduction, a demonstration, a goodbye. Its true length comes from the footage; the plan holds a guess at most.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { head, ms, type Format } from './format'
import { Run } from './run'

const schema = z.object({
  format: z.literal('talk'),
  ...head,
  /** A guess at the length, or null for none. */
  guessMs: ms.nullable(),
})
export type Talk = z.infer<typeof schema>
export { schema as talkSchema }

export const talk: Format<Talk> = {
  schema,
  notation: {
    head: 'talk',
    moves: 'none',
    fields: [{ kind: 'optionalLength', field: 'guessMs', word: 'about', bare: null }],
  },
  defaults: (key, name) => ({ format: 'talk', key, name, above: [], beside: '', guessMs: 30_000 }),
  expand(section, around) {
    const run = new Run(section.key, around)
    run.talk('talk', section.guessMs ?? 0, section.name, {}, ['guessMs'])
    return run.segments
  },
  describe: ({ guessMs }) => (guessMs === null ? 'talk of open length' : `talk, about ${formatLength(guessMs)}`),
}
