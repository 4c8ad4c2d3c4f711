// Alternating pairs (F3): A B A B ..., always an even number of intervals; several pairs with a break between them.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { ACTIVE, counts, LAST, LAST_RESTS, LEAD, LEAD_EACH, length, sectionSchema } from './fields'
import { defineFormat, type Format, keepsTabata, knobs } from './format'
import { restStays } from './lastRest'
import { usual } from './rows'
import { given, groupKey, ownRest, ownWork, placed, Run } from './run'

const fields = [
  counts('times', 'times', { usual: 4 }),
  length('workMs', 'on', { usual: 30_000 }),
  length('restMs', 'off', { usual: 15_000 }),
  length('pairBreakMs', 'between', { usual: 60_000 }),
  LEAD,
  LEAD_EACH,
  LAST,
  ACTIVE,
] as const
export const pairsSchema = sectionSchema('pairs', fields, 'groups')
type Pairs = z.infer<typeof pairsSchema>

export const pairs: Format<Pairs> = defineFormat('pairs', {
  schema: pairsSchema,
  words: { set: { one: 'pair', many: 'pairs' } },
  notation: { head: 'pairs', fields, moves: 'groups', groupSize: [2, 2], perMove: ['workMs', 'restMs', 'swaps'] },
  works: ({ groups, times }) => groups.flat().length * times,
  solve: knobs('times', 'workMs', 'restMs'),
  keeps: keepsTabata,
  expand(section, around) {
    const { times, pairBreakMs, groups } = section
    const run = new Run(section, around)
    if (!groups.length) return run.segments
    run.lead(section.leadInMs)
    const work = given(section.workMs, 'workMs'),
      rest = given(section.restMs, 'restMs')
    groups.forEach((group, at) => {
      const last = at === groups.length - 1
      const between = { set: at + 1, sets: groups.length }
      const closing = restStays(section.lastRest, { last, breakBetween: pairBreakMs > 0, follows: around.follows })
      const places = placed(group, 'groups', at)
      if (at > 0) run.leadEach(groupKey(group), section.eachLeadMs)
      for (let time = 1; time <= times; time++) {
        places.forEach((one, index) =>
          run.turn({
            place: `r${time}/${one.key}`,
            one,
            pass: time,
            work: ownWork(one, work),
            rest: ownRest(one, rest),
            closes: time < times || index < places.length - 1 || closing,
            spot: { ...between, round: time, rounds: times, station: index + 1, stations: places.length },
          }),
        )
      }
      if (!last) run.pause(`${groupKey(group)}/break`, given(pairBreakMs, 'pairBreakMs'), between)
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
      restLabel: rows.restLabel,
      groups: rows.groups(),
    })),
})
