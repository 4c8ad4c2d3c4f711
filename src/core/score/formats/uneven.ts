// Uneven group (F11): inside a group each part has its own length, say long heavy, short cardio, long light, then rest.
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
  format: z.literal('uneven'),
  ...head,
  leadInMs: ms,
  rounds: count(1, 500),
  workMs: ms,
  restMs: ms,
  groupBreakMs: ms,
  lastRest,
  restLabel,
  groups,
})
type Uneven = z.infer<typeof schema>
export { schema as unevenSchema }

export const uneven: Format<Uneven> = {
  schema,
  words: { set: { one: 'group', many: 'groups' } },
  notation: {
    head: 'uneven',
    moves: 'groups',
    groupSize: [1, 0],
    perMove: ['workMs', 'restMs', 'swaps'],
    fields: [
      counts('rounds', 'rounds', 1, 500),
      length('workMs', 'on'),
      length('restMs', 'off'),
      length('groupBreakMs', 'between'),
      LEAD,
      LAST,
      ACTIVE,
    ],
  },
  defaults: (key, name) => ({
    format: 'uneven',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    rounds: 3,
    workMs: 40_000,
    restMs: 30_000,
    groupBreakMs: 60_000,
    lastRest: 'replaced',
    restLabel: '',
    groups: [],
  }),
  expand(section, around) {
    const { rounds, groups, groupBreakMs } = section
    const run = new Run(section.key, around)
    if (!groups.length) return run.segments
    run.lead(section.leadInMs)
    const work = given(section.workMs, 'workMs'),
      rest = given(section.restMs, 'restMs')
    groups.forEach((group, at) => {
      const lastGroup = at === groups.length - 1
      const places = placed(group, 'groups', at)
      for (let round = 1; round <= rounds; round++) {
        const closing =
          round < rounds ||
          restStays(section.lastRest, {
            last: lastGroup,
            breakBetween: groupBreakMs > 0,
            breakFollows: around.breakFollows,
          })
        places.forEach((one, index) => {
          const ends = index === places.length - 1
          const own = ends || one.station.restMs !== null ? ownRest(one, rest) : null
          const spot = { round, rounds, set: at + 1, sets: groups.length, station: index + 1, stations: places.length }
          run.turn(
            `g${at + 1}/r${round}/s${index + 1}`,
            one,
            round,
            ownWork(one, work),
            own,
            !ends || closing,
            spot,
            section.restLabel,
          )
        })
      }
      if (!lastGroup)
        run.pause(`g${at + 1}/break`, given(groupBreakMs, 'groupBreakMs'), { set: at + 1, sets: groups.length })
    })
    return run.segments
  },
  describe: ({ rounds, groups, workMs, restMs }, { words }) => {
    const parts = (groups[0] ?? []).map((station) => formatLength(station.workMs ?? workMs)).join(', ')
    return `${counted(rounds, words.round)} of ${counted(groups.length, words.set)}${parts ? `: ${parts} on` : ''}, then ${formatLength(restMs)} off`
  },
  recognise: (rows, key, name) =>
    LAST_RESTS.map((lastRest) => ({
      ...uneven.defaults(key, name),
      leadInMs: rows.leadInMs,
      rounds: Math.max(1, rows.rounds),
      workMs: usual(rows.works),
      restMs: usual(rows.rests),
      groupBreakMs: usual(rows.breaks),
      lastRest,
      restLabel: rows.rests[0]?.label ?? '',
      groups: rows.groups({ ownFrom: 'all' }),
    })),
}
