// Warm-up (F19): a run of timed and counted moves without rest; or a reminder of one elsewhere.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { head, LEAD, length, ms, type Format } from './format'
import { intervalOf } from './counting'
import { onceThrough } from './frames'
import { describeOutside, outside, outsideFields } from './outside'
import { given, guessed, ownWork } from './run'
import { usual } from './rows'
import { stations } from './station'

const schema = z.object({ format: z.literal('warmUp'), ...head, leadInMs: ms, workMs: ms, ...outside, stations })
type WarmUp = z.infer<typeof schema>
export { schema as warmUpSchema }

export const warmUp: Format<WarmUp> = {
  schema,
  words: { station: { one: 'move', many: 'moves' } },
  notation: {
    head: 'warm-up',
    moves: 'flat',
    perMove: ['workMs', 'reps'],
    fields: [length('workMs', 'on', 30_000), ...outsideFields, LEAD],
  },
  defaults: (key, name) => ({
    format: 'warmUp',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 0,
    workMs: 30_000,
    where: 'here',
    link: '',
    reminderMs: 8000,
    stations: [],
  }),
  expand: (section, around) =>
    onceThrough(section, around, (one) => ({
      one,
      work:
        one.station.reps === null
          ? ownWork(one, given(section.workMs, 'workMs'))
          : guessed(intervalOf(one.station, 1, around.cast)),
    })),
  describe: (section, { words }) =>
    section.where === 'here'
      ? `${counted(section.stations.length, words.station)} one after another, ${formatLength(section.workMs)} each unless said`
      : describeOutside(section),
  recognise: (rows, key, name) => [
    {
      ...warmUp.defaults(key, name),
      leadInMs: rows.leadInMs,
      workMs: usual(rows.works.filter((row) => row.reps === null)),
      stations: rows.stations(),
    },
  ],
}
