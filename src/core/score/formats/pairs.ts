// Alternating pairs (F3): A B A B ..., always an even number of intervals; several pairs with a break between them.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import {
  ACTIVE,
  count,
  counts,
  head,
  LAST,
  LAST_RESTS,
  lastRest,
  LEAD,
  length,
  ms,
  restLabel,
  type Format,
} from './format'
import { restStays } from './lastRest'
import { given, ownRest, ownWork, placed, Run } from './run'
import { usual } from './rows'
import { groups } from './station'

const schema = z.object({
  format: z.literal('pairs'),
  ...head,
  leadInMs: ms,
  times: count(1, 500),
  workMs: ms,
  restMs: ms,
  pairBreakMs: ms,
  lastRest,
  restLabel,
  groups,
})
type Pairs = z.infer<typeof schema>
export { schema as pairsSchema }

export const pairs: Format<Pairs> = {
  schema,
  words: { set: { one: 'pair', many: 'pairs' } },
  notation: {
    head: 'pairs',
    moves: 'groups',
    groupSize: [2, 2],
    perMove: ['workMs', 'restMs', 'swaps'],
    fields: [
      counts('times', 'times', 1, 500),
      length('workMs', 'on'),
      length('restMs', 'off'),
      length('pairBreakMs', 'between'),
      LEAD,
      LAST,
      ACTIVE,
    ],
  },
  defaults: (key, name) => ({
    format: 'pairs',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    times: 4,
    workMs: 30_000,
    restMs: 15_000,
    pairBreakMs: 60_000,
    lastRest: 'replaced',
    restLabel: '',
    groups: [],
  }),
  expand(section, around) {
    const { times, pairBreakMs, groups } = section
    const run = new Run(section.key, around)
    if (!groups.length) return run.segments
    run.lead(section.leadInMs)
    const work = given(section.workMs, 'workMs'),
      rest = given(section.restMs, 'restMs')
    groups.forEach((group, at) => {
      const last = at === groups.length - 1
      const closing = restStays(section.lastRest, {
        last,
        breakBetween: pairBreakMs > 0,
        breakFollows: around.breakFollows,
      })
      const places = placed(group, 'groups', at)
      for (let time = 1; time <= times; time++) {
        places.forEach((one, index) => {
          const spot = {
            round: time,
            rounds: times,
            set: at + 1,
            sets: groups.length,
            station: index + 1,
            stations: places.length,
          }
          run.turn(
            `g${at + 1}/r${time}/s${index + 1}`,
            one,
            time,
            ownWork(one, work),
            ownRest(one, rest),
            time < times || index < places.length - 1 || closing,
            spot,
            section.restLabel,
          )
        })
      }
      if (!last) run.pause(`g${at + 1}/break`, given(pairBreakMs, 'pairBreakMs'), { set: at + 1, sets: groups.length })
    })
    return run.segments
  },
  describe: ({ times, workMs, restMs, pairBreakMs, groups }, { words }) =>
    `${counted(groups.length, words.set)}, each A B ${times} times (${times * 2} intervals), ${formatLength(workMs)} on, ${formatLength(restMs)} off` +
    (groups.length > 1 && pairBreakMs ? `, ${formatLength(pairBreakMs)} between ${words.set.many}` : ''),
  recognise: (rows, key, name) =>
    LAST_RESTS.map((lastRest) => ({
      ...pairs.defaults(key, name),
      leadInMs: rows.leadInMs,
      times: Math.max(1, rows.rounds),
      workMs: usual(rows.works),
      restMs: usual(rows.rests),
      pairBreakMs: usual(rows.breaks),
      lastRest,
      restLabel: rows.rests[0]?.label ?? '',
      groups: rows.groups(),
    })),
}
