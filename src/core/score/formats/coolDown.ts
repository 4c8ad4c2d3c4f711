// Cool-down (F20): holds, each side in turn; or a reminder of one elsewhere.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { head, LEAD, length, ms, type Format } from './format'
import { onceThrough } from './frames'
import { describeOutside, outside, outsideFields } from './outside'
import { given, ownWork } from './run'
import { usual } from './rows'
import { moveIn, ruleOf, stations } from './station'

const schema = z.object({ format: z.literal('coolDown'), ...head, leadInMs: ms, workMs: ms, ...outside, stations })
type CoolDown = z.infer<typeof schema>
export { schema as coolDownSchema }

export const coolDown: Format<CoolDown> = {
  schema,
  words: { station: { one: 'hold', many: 'holds' } },
  notation: {
    head: 'cool-down',
    moves: 'flat',
    perMove: ['workMs'],
    fields: [length('workMs', 'hold', 30_000), ...outsideFields, LEAD],
  },
  defaults: (key, name) => ({
    format: 'coolDown',
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
}
