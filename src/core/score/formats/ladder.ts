// Ladder (F6): work grows by a step each round, and rest equals that round's work; repeated for further groups.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { ACTIVE, choice, counts, LAST, LAST_RESTS, LEAD, length, sectionSchema } from './fields'
import { defineFormat, type Format, knobs } from './format'
import { restStays } from './lastRest'
import { usual } from './rows'
import { given, groupKey, placed, Run, stepped } from './run'

/** Whether the rest comes after every move, or once the whole group is done. */
const REST_AFTER = ['station', 'round'] as const

const fields = [
  counts('rungs', 'rungs', { usual: 5 }),
  length('startMs', 'from', { usual: 10_000 }),
  length('stepMs', 'step', { usual: 10_000 }),
  choice('restAfter', 'rest after each', REST_AFTER),
  length('groupBreakMs', 'between', { usual: 60_000 }),
  LEAD,
  LAST,
  ACTIVE,
] as const
export const ladderSchema = sectionSchema('ladder', fields, 'groups')
type Ladder = z.infer<typeof ladderSchema>

export const ladder: Format<Ladder> = defineFormat('ladder', {
  schema: ladderSchema,
  words: { round: { one: 'rung', many: 'rungs' }, set: { one: 'group', many: 'groups' } },
  notation: { head: 'ladder', fields, moves: 'groups', groupSize: [1, 0], perMove: ['swaps'] },
  works: ({ groups, rungs }) => groups.flat().length * rungs,
  solve: knobs('rungs', 'startMs', 'stepMs', { timesLow: 3, timesHigh: 10 }),
  keeps: () => ['ladder'],
  expand(section, around) {
    const { rungs, groups, groupBreakMs } = section
    const run = new Run(section, around)
    if (!groups.length) return run.segments
    run.lead(section.leadInMs)
    const start = { ms: section.startMs, path: ['startMs'] },
      step = { ms: section.stepMs, path: ['stepMs'] }
    groups.forEach((group, at) => {
      const places = placed(group, 'groups', at)
      const lastGroup = at === groups.length - 1
      const between = { set: at + 1, sets: groups.length }
      const closing = restStays(section.lastRest, {
        last: lastGroup,
        breakBetween: groupBreakMs > 0,
        follows: around.follows,
      })
      for (let rung = 1; rung <= rungs; rung++) {
        const work = stepped(start, step, rung - 1)
        places.forEach((one, index) => {
          const lastOfRung = index === places.length - 1
          run.turn({
            place: `r${rung}/${one.key}`,
            one,
            pass: rung,
            work,
            rest: section.restAfter === 'station' || lastOfRung ? work : null,
            closes: rung < rungs || !lastOfRung || closing,
            spot: { ...between, round: rung, rounds: rungs, station: index + 1, stations: places.length },
          })
        })
      }
      if (!lastGroup) run.pause(`${groupKey(group)}/break`, given(groupBreakMs, 'groupBreakMs'), between)
    })
    return run.segments
  },
  describe: ({ rungs, startMs, stepMs, groups, restAfter }, { words }) =>
    `${counted(rungs, words.round)} from ${formatLength(startMs)} to ${formatLength(startMs + stepMs * (rungs - 1))}, rest as long as the work after each ${restAfter === 'round' ? words.round.one : 'move'}` +
    (groups.length > 1 ? `, for ${counted(groups.length, words.set)}` : ''),
  recognise: (rows, key, name) =>
    LAST_RESTS.flatMap((lastRest) =>
      REST_AFTER.map((restAfter) => {
        const startMs = usual(rows.worksIn(1)),
          second = usual(rows.worksIn(2))
        return {
          ...ladder.defaults(key, name),
          leadInMs: rows.leadInMs,
          rungs: Math.max(1, rows.rounds),
          startMs,
          stepMs: rows.rounds > 1 ? Math.max(0, second - startMs) : 0,
          restAfter,
          groupBreakMs: usual(rows.breaks),
          lastRest,
          restLabel: rows.restLabel,
          groups: rows.groups(),
        }
      }),
    ),
})
