// Cool-down (F20): holds, each side in turn; or a reminder of one elsewhere.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { length, NO_LEAD, ROUNDS_OF_PART, sectionSchema } from './fields'
import { defineFormat, type Format } from './format'
import { onceThrough } from './frames'
import { describeOutside, outsideFields } from './outside'
import { usual } from './rows'
import { given, ownPace, ownWork } from './run'
import { ruleIn } from './station'

const fields = [length('workMs', 'hold', { bare: 30_000 }), ...ROUNDS_OF_PART, ...outsideFields, NO_LEAD] as const
export const coolDownSchema = sectionSchema('coolDown', fields, 'flat')
type CoolDown = z.infer<typeof coolDownSchema>

export const coolDown: Format<CoolDown> = defineFormat('coolDown', {
  schema: coolDownSchema,
  part: 'coolDown',
  words: { station: { one: 'hold', many: 'holds' } },
  notation: { head: 'cool-down', fields, moves: 'flat', perMove: ['workMs', 'reps'] },
  works: ({ stations, rounds }) => stations.length * rounds,
  keeps: ({ where }) => (where === 'here' ? ['coolDown'] : []),
  expand: (section, around) =>
    onceThrough(section, around, (one, round) => {
      const rule = ruleIn(one.station, round, around.cast)
      // With one pass only, a move that would change sides by round is held on each side in turn.
      const turns = rule === 'alternate' && section.rounds === 1
      const sided = turns ? { ...one, station: { ...one.station, sideRule: 'each' as const } } : one
      const counted = one.station.reps !== null || one.joined.length > 0
      return {
        one: sided,
        work: counted ? ownPace(one, round, around.cast) : ownWork(one, given(section.workMs, 'workMs')),
      }
    }),
  describe: (section, { words }) =>
    section.where === 'here'
      ? `${counted(section.stations.length, words.station)} of ${formatLength(section.workMs)}, each side in turn`
      : describeOutside(section),
  recognise: (rows, key, name) => [
    {
      ...coolDown.defaults(key, name),
      leadInMs: rows.leadInMs,
      workMs: usual(rows.works.filter((row) => row.reps === null)),
      rounds: Math.max(1, rows.rounds),
      restMs: usual(rows.rests),
      roundBreakMs: usual(rows.breaks),
      stations: rows.stations(),
    },
  ],
})
