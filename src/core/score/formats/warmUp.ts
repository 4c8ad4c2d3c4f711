// Warm-up (F19): a run of timed and counted moves without rest; or a reminder of one elsewhere.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { length, NO_LEAD, ROUNDS_OF_PART, sectionSchema } from './fields'
import { defineFormat, type Format } from './format'
import { onceThrough } from './frames'
import { describeOutside, outsideFields } from './outside'
import { usual } from './rows'
import { given, ownPace, ownWork } from './run'

const fields = [length('workMs', 'on', { bare: 30_000 }), ...ROUNDS_OF_PART, ...outsideFields, NO_LEAD] as const
export const warmUpSchema = sectionSchema('warmUp', fields, 'flat')
type WarmUp = z.infer<typeof warmUpSchema>

export const warmUp: Format<WarmUp> = defineFormat('warmUp', {
  schema: warmUpSchema,
  part: 'warmUp',
  words: { station: { one: 'move', many: 'moves' } },
  notation: { head: 'warm-up', fields, moves: 'flat', perMove: ['workMs', 'reps'] },
  works: ({ stations, rounds }) => stations.length * rounds,
  keeps: ({ where }) => (where === 'here' ? ['warmUp'] : []),
  expand: (section, around) =>
    onceThrough(section, around, (one, round) => ({
      one,
      work:
        one.station.reps === null && !one.joined.length
          ? ownWork(one, given(section.workMs, 'workMs'))
          : ownPace(one, round, around.cast),
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
      rounds: Math.max(1, rows.rounds),
      restMs: usual(rows.rests),
      roundBreakMs: usual(rows.breaks),
      stations: rows.stations(),
    },
  ],
})
