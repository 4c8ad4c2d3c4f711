// Uneven group (F11): inside a group each part has its own length, say long heavy, short cardio, long light, then rest.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { ACTIVE, counts, LAST, LAST_RESTS, LEAD, length, sectionSchema } from './fields'
import { defineFormat, type Format, keepsTabata, knobs } from './format'
import { restStays } from './lastRest'
import { usual } from './rows'
import { given, groupKey, ownRest, ownWork, placed, Run } from './run'

const fields = [
  counts('rounds', 'rounds', { usual: 3 }),
  length('workMs', 'on', { usual: 40_000 }),
  length('restMs', 'off', { usual: 30_000 }),
  length('groupBreakMs', 'between', { usual: 60_000 }),
  LEAD,
  LAST,
  ACTIVE,
] as const
export const unevenSchema = sectionSchema('uneven', fields, 'groups')
type Uneven = z.infer<typeof unevenSchema>

export const uneven: Format<Uneven> = defineFormat('uneven', {
  schema: unevenSchema,
  words: { set: { one: 'group', many: 'groups' } },
  notation: { head: 'uneven', fields, moves: 'groups', groupSize: [1, 0], perMove: ['workMs', 'restMs', 'swaps'] },
  works: ({ groups, rounds }) => groups.flat().length * rounds,
  solve: knobs('rounds', 'workMs', 'restMs', { oneGroup: true }),
  keeps: keepsTabata,
  expand(section, around) {
    const { rounds, groups, groupBreakMs } = section
    const run = new Run(section, around)
    if (!groups.length) return run.segments
    run.lead(section.leadInMs)
    const work = given(section.workMs, 'workMs'),
      rest = given(section.restMs, 'restMs')
    groups.forEach((group, at) => {
      const lastGroup = at === groups.length - 1
      const between = { set: at + 1, sets: groups.length }
      const end = { last: lastGroup, breakBetween: groupBreakMs > 0, breakFollows: around.breakFollows }
      const places = placed(group, 'groups', at)
      for (let round = 1; round <= rounds; round++) {
        const closing = round < rounds || restStays(section.lastRest, end)
        places.forEach((one, index) => {
          const ends = index === places.length - 1
          run.turn({
            place: `r${round}/${one.key}`,
            one,
            pass: round,
            work: ownWork(one, work),
            rest: ends || one.station.restMs !== null ? ownRest(one, rest) : null,
            closes: !ends || closing,
            spot: { ...between, round, rounds, station: index + 1, stations: places.length },
          })
        })
      }
      if (!lastGroup) run.pause(`${groupKey(group)}/break`, given(groupBreakMs, 'groupBreakMs'), between)
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
      restLabel: rows.restLabel,
      groups: rows.groups({ ownFrom: 'all' }),
    })),
})
