// Short bursts (F4), classically 20 on and 10 off eight times: one station or two in turn; several bursts with talk and
// a break between them. score/schools.ts holds what people understand by the word for it.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { ACTIVE, counts, LAST_KEPT, LAST_RESTS, LEAD, LEAD_EACH, length, sectionSchema } from './fields'
import { defineFormat, type Format, knobs, type TitleWord, twiceTheRest } from './format'
import { restStays } from './lastRest'
import { usual } from './rows'
import { given, groupKey, ownRest, ownWork, placed, Run } from './run'
import { withReps } from './station'

const fields = [
  counts('intervals', 'intervals', { bare: 8 }),
  length('workMs', 'on', { bare: 20_000 }),
  length('restMs', 'off', { bare: 10_000 }),
  /** A guess at the talk and demonstration before every burst but the first; 0 for none. */
  length('talkMs', 'talk', { usual: 20_000 }),
  length('burstBreakMs', 'between', { usual: 40_000 }),
  LEAD,
  LEAD_EACH,
  LAST_KEPT,
  ACTIVE,
] as const
export const burstSchema = sectionSchema('burst', fields, 'groups')
type Burst = z.infer<typeof burstSchema>

const isClassic = ({ workMs, restMs, intervals }: Burst): boolean =>
  workMs === 20_000 && restMs === 10_000 && intervals === 8

export const burst: Format<Burst> = defineFormat('burst', {
  schema: burstSchema,
  words: { set: { one: 'burst', many: 'bursts' }, round: { one: 'interval', many: 'intervals' } },
  notation: { head: 'burst', fields, moves: 'groups', groupSize: [1, 2], perMove: ['workMs', 'restMs', 'swaps'] },
  works: ({ groups, intervals }) => groups.length * intervals,
  solve: knobs('intervals', 'workMs', 'restMs', { timesLow: 4, timesHigh: 16 }),
  keeps(section, { tabata }): readonly TitleWord[] {
    const kept =
      tabata === 'burst' || (tabata === 'strict' ? isClassic(section) : twiceTheRest(section.workMs, section.restMs))
    return kept ? ['tabata'] : []
  },
  expand(section, around) {
    const { intervals, burstBreakMs, talkMs, groups } = section
    const run = new Run(section, around)
    if (!groups.length) return run.segments
    run.lead(section.leadInMs)
    const work = given(section.workMs, 'workMs'),
      rest = given(section.restMs, 'restMs')
    groups.forEach((group, at) => {
      const places = placed(group, 'groups', at)
      const last = at === groups.length - 1
      const between = { set: at + 1, sets: groups.length }
      const closing = restStays(section.lastRest, { last, breakBetween: burstBreakMs > 0, follows: around.follows })
      if (at > 0 && talkMs) {
        const label = `Shown: ${group.map((station) => withReps(station, 1)).join(', ')}`
        run.talk({ place: `${groupKey(group)}/talk`, ms: talkMs, label, spot: between, field: ['talkMs'] })
      }
      if (at > 0) run.leadEach(groupKey(group), section.eachLeadMs)
      for (let interval = 1; interval <= intervals; interval++) {
        const one = places[(interval - 1) % places.length]
        if (!one) continue
        run.turn({
          place: `${one.key}/r${interval}`,
          one,
          pass: Math.ceil(interval / places.length),
          work: ownWork(one, work),
          rest: ownRest(one, rest),
          closes: interval < intervals || closing,
          spot: { ...between, round: interval, rounds: intervals },
        })
      }
      if (!last) run.pause(`${groupKey(group)}/break`, given(burstBreakMs, 'burstBreakMs'), between)
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
        restLabel: rows.restLabel,
        groups: rows.turns(size),
      })),
    ),
})
