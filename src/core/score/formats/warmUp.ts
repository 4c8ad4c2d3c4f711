// Warm-up (F19): a run of timed and counted moves without rest; or a reminder of one elsewhere.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { intervalOf } from './counting'
import { length, NO_LEAD, sectionSchema } from './fields'
import { defineFormat, type Format } from './format'
import { onceThrough } from './frames'
import { describeOutside, outsideFields } from './outside'
import { usual } from './rows'
import { given, guessed, ownWork } from './run'

const fields = [length('workMs', 'on', { bare: 30_000 }), ...outsideFields, NO_LEAD] as const
export const warmUpSchema = sectionSchema('warmUp', fields, 'flat')
type WarmUp = z.infer<typeof warmUpSchema>

export const warmUp: Format<WarmUp> = defineFormat('warmUp', {
  schema: warmUpSchema,
  part: 'warmUp',
  words: { station: { one: 'move', many: 'moves' } },
  notation: { head: 'warm-up', fields, moves: 'flat', perMove: ['workMs', 'reps'] },
  works: ({ stations }) => stations.length,
  keeps: ({ where }) => (where === 'here' ? ['warmUp'] : []),
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
})
