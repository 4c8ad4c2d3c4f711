// Ladder (F6): work grows by a step each round, and rest equals that round's work; repeated for further groups.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import {
  ACTIVE,
  choice,
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
import { given, placed, Run, stepped } from './run'
import { usual } from './rows'
import { groups } from './station'

const REST_AFTER = ['station', 'round'] as const

const schema = z.object({
  format: z.literal('ladder'),
  ...head,
  leadInMs: ms,
  rungs: count(1, 500),
  startMs: ms,
  stepMs: ms,
  /** Whether the rest comes after every move, or once the whole group is done. */
  restAfter: z.enum(REST_AFTER).default('station'),
  groupBreakMs: ms,
  lastRest,
  restLabel,
  groups,
})
type Ladder = z.infer<typeof schema>
export { schema as ladderSchema }

export const ladder: Format<Ladder> = {
  schema,
  words: { round: { one: 'rung', many: 'rungs' }, set: { one: 'group', many: 'groups' } },
  notation: {
    head: 'ladder',
    moves: 'groups',
    groupSize: [1, 0],
    perMove: ['swaps'],
    fields: [
      counts('rungs', 'rungs', 1, 500),
      length('startMs', 'from'),
      length('stepMs', 'step'),
      choice('restAfter', 'rest after each', REST_AFTER),
      length('groupBreakMs', 'between'),
      LEAD,
      LAST,
      ACTIVE,
    ],
  },
  defaults: (key, name) => ({
    format: 'ladder',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    rungs: 5,
    startMs: 10_000,
    stepMs: 10_000,
    restAfter: 'station',
    groupBreakMs: 60_000,
    lastRest: 'replaced',
    restLabel: '',
    groups: [],
  }),
  expand(section, around) {
    const { rungs, startMs, stepMs, groups, groupBreakMs } = section
    const run = new Run(section.key, around)
    if (!groups.length) return run.segments
    run.lead(section.leadInMs)
    groups.forEach((group, at) => {
      const places = placed(group, 'groups', at)
      const lastGroup = at === groups.length - 1
      const closing = restStays(section.lastRest, {
        last: lastGroup,
        breakBetween: groupBreakMs > 0,
        breakFollows: around.breakFollows,
      })
      for (let rung = 1; rung <= rungs; rung++) {
        const work = stepped(startMs, ['startMs'], stepMs, rung - 1, ['stepMs'])
        places.forEach((one, index) => {
          const spot = {
            round: rung,
            rounds: rungs,
            set: at + 1,
            sets: groups.length,
            station: index + 1,
            stations: places.length,
          }
          const rests = section.restAfter === 'station' || index === places.length - 1
          run.turn(
            `g${at + 1}/r${rung}/s${index + 1}`,
            one,
            rung,
            work,
            rests ? work : null,
            rung < rungs || index < places.length - 1 || closing,
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
          restLabel: rows.rests[0]?.label ?? '',
          groups: rows.groups(),
        }
      }),
    ),
}
