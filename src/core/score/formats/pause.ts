// A break that stands between two sections.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { head, length, ms, type Format } from './format'
import { given, NOWHERE, Run } from './run'

const schema = z.object({ format: z.literal('break'), ...head, durationMs: ms })
export type Pause = z.infer<typeof schema>
export { schema as pauseSchema }

export const pause: Format<Pause> = {
  schema,
  notation: { head: 'break', moves: 'none', fields: [length('durationMs', 'long')] },
  defaults: (key, name) => ({ format: 'break', key, name, above: [], beside: '', durationMs: 60_000 }),
  expand(section, around) {
    const run = new Run(section.key, around)
    run.pause('break', given(section.durationMs, 'durationMs'), NOWHERE, section.name)
    return run.segments
  },
  describe: ({ durationMs }) => `break of ${formatLength(durationMs)}`,
}
