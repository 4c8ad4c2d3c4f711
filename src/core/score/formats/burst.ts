// Short bursts (F4), classically 20 on and 10 off eight times: one station or two in turn; several bursts with talk and
// a break between them. score/schools.ts holds what people understand by the word for it.
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
import { groups, withReps } from './station'

const schema = z.object({
  format: z.literal('burst'),
  ...head,
  leadInMs: ms,
  intervals: count(1, 500),
  workMs: ms,
  restMs: ms,
  /** A guess at the talk and demonstration before every burst but the first; 0 for none. */
  talkMs: ms,
  burstBreakMs: ms,
  lastRest,
  restLabel,
  groups,
})
type Burst = z.infer<typeof schema>
export { schema as burstSchema }

export const burst: Format<Burst> = {
  schema,
  words: { set: { one: 'burst', many: 'bursts' }, round: { one: 'interval', many: 'intervals' } },
  notation: {
    head: 'burst',
    moves: 'groups',
    groupSize: [1, 2],
    perMove: ['workMs', 'restMs', 'swaps'],
    fields: [
      counts('intervals', 'intervals', 1, 500, 8),
      length('workMs', 'on', 20_000),
      length('restMs', 'off', 10_000),
      length('talkMs', 'talk'),
      length('burstBreakMs', 'between'),
      LEAD,
      LAST,
      ACTIVE,
    ],
  },
  defaults: (key, name) => ({
    format: 'burst',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    intervals: 8,
    workMs: 20_000,
    restMs: 10_000,
    talkMs: 20_000,
    burstBreakMs: 40_000,
    lastRest: 'kept',
    restLabel: '',
    groups: [],
  }),
  expand(section, around) {
    const { intervals, burstBreakMs, talkMs, groups } = section
    const run = new Run(section.key, around)
    if (!groups.length) return run.segments
    run.lead(section.leadInMs)
    const work = given(section.workMs, 'workMs'),
      rest = given(section.restMs, 'restMs')
    groups.forEach((group, at) => {
      const places = placed(group, 'groups', at)
      if (!places.length) return
      const last = at === groups.length - 1
      const between = { set: at + 1, sets: groups.length }
      const closing = restStays(section.lastRest, {
        last,
        breakBetween: burstBreakMs > 0,
        breakFollows: around.breakFollows,
      })
      if (at > 0 && talkMs)
        run.talk(
          `g${at + 1}/talk`,
          talkMs,
          `Shown: ${group.map((station) => withReps(station, 1)).join(', ')}`,
          between,
          ['talkMs'],
        )
      for (let interval = 1; interval <= intervals; interval++) {
        const one = places[(interval - 1) % places.length]
        if (!one) continue
        const spot = { ...between, round: interval, rounds: intervals }
        const pass = Math.ceil(interval / places.length)
        run.turn(
          `g${at + 1}/r${interval}`,
          one,
          pass,
          ownWork(one, work),
          ownRest(one, rest),
          interval < intervals || closing,
          spot,
          section.restLabel,
        )
      }
      if (!last) run.pause(`g${at + 1}/break`, given(burstBreakMs, 'burstBreakMs'), between)
    })
    return run.segments
  },
  describe: ({ groups, intervals, workMs, restMs, burstBreakMs }, { words }) =>
    `${counted(groups.length, words.set)} of ${counted(intervals, words.round)}, ${formatLength(workMs)} on, ${formatLength(restMs)} off` +
    (groups.length > 1 && burstBreakMs ? `, ${formatLength(burstBreakMs)} between ${words.set.many}` : ''),
  recognise: (rows, key, name) =>
    LAST_RESTS.flatMap((lastRest) =>
      [1, 2].map((size) => ({
        ...burst.defaults(key, name),
        leadInMs: rows.leadInMs,
        intervals: Math.max(1, rows.rounds),
        workMs: usual(rows.works),
        restMs: usual(rows.rests),
        talkMs: usual(rows.all.filter((row) => row.kind === 'talk')),
        burstBreakMs: usual(rows.breaks),
        lastRest,
        restLabel: rows.rests[0]?.label ?? '',
        groups: rows.turns(size),
      })),
    ),
}
