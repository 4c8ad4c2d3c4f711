// Cool-down (F20): holds, each side in turn; or a reminder of one elsewhere.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { length, NO_LEAD, sectionSchema } from './fields'
import { defineFormat, type Format } from './format'
import { onceThrough } from './frames'
import { describeOutside, outsideFields } from './outside'
import { usual } from './rows'
import { given, ownWork } from './run'
import { moveIn, ruleOf } from './station'

const fields = [length('workMs', 'hold', { bare: 30_000 }), ...outsideFields, NO_LEAD] as const
export const coolDownSchema = sectionSchema('coolDown', fields, 'flat')
type CoolDown = z.infer<typeof coolDownSchema>

export const coolDown: Format<CoolDown> = defineFormat('coolDown', {
  schema: coolDownSchema,
  part: 'coolDown',
  words: { station: { one: 'hold', many: 'holds' } },
  notation: { head: 'cool-down', fields, moves: 'flat', perMove: ['workMs'] },
  works: ({ stations }) => stations.length,
  keeps: ({ where }) => (where === 'here' ? ['coolDown'] : []),
  expand: (section, around) =>
    onceThrough(section, around, (one) => {
      const rule = ruleOf(one.station, moveIn(one.station, 1, around.cast))
      // There is one pass only, so a move that would change sides by round is held on each side in turn.
      const sided = rule === 'alternate' ? { ...one, station: { ...one.station, sideRule: 'each' as const } } : one
      return { one: sided, work: ownWork(one, given(section.workMs, 'workMs')) }
    }),
  describe: (section, { words }) =>
    section.where === 'here'
      ? `${counted(section.stations.length, words.station)} of ${formatLength(section.workMs)}, each side in turn`
      : describeOutside(section),
  recognise: (rows, key, name) => [
    { ...coolDown.defaults(key, name), leadInMs: rows.leadInMs, workMs: usual(rows.works), stations: rows.stations() },
  ],
})
