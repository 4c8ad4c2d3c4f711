// Buy-in (F12): inside one fixed interval, n reps of A first, then B for whatever time is left.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { leftAfterBuyIn } from '../reps'
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
import { groupSeconds } from './counting'
import { roundsOfGroups } from './frames'
import { usual } from './rows'
import { groups, labelIn, withReps, type Station } from './station'

const schema = z.object({
  format: z.literal('buyIn'),
  ...head,
  leadInMs: ms,
  rounds: count(1, 500),
  workMs: ms,
  restMs: ms,
  roundBreakMs: ms,
  lastRest,
  restLabel,
  groups,
})
type BuyIn = z.infer<typeof schema>
export { schema as buyInSchema }

const JOIN = ', then '
const labelOf = (group: readonly Station[], pass: number): string =>
  group.map((station, index) => (index ? labelIn(station, pass) : withReps(station, pass))).join(JOIN)

export const buyIn: Format<BuyIn> = {
  schema,
  words: { station: { one: 'pair', many: 'pairs' } },
  notation: {
    head: 'buy-in',
    moves: 'groups',
    groupSize: [2, 2],
    perMove: ['reps', 'swaps'],
    fields: [
      counts('rounds', 'rounds', 1, 500),
      length('workMs', 'on'),
      length('restMs', 'off'),
      length('roundBreakMs', 'between'),
      LEAD,
      LAST,
      ACTIVE,
    ],
  },
  defaults: (key, name) => ({
    format: 'buyIn',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    rounds: 3,
    workMs: 60_000,
    restMs: 30_000,
    roundBreakMs: 0,
    lastRest: 'replaced',
    restLabel: '',
    groups: [],
  }),
  expand: (section, around) =>
    roundsOfGroups(section, around, labelOf, ([first, then], round) => {
      if (!first) return {}
      const leftMs = leftAfterBuyIn(section.workMs, groupSeconds([first], round, around.cast))
      return {
        reps: first.reps,
        note: then ? `About ${formatLength(Math.round(leftMs / 1000) * 1000)} for ${labelIn(then, round)}` : '',
      }
    }),
  describe: ({ rounds, groups, workMs, restMs }, { words }) => {
    const first = groups[0]
    return `${counted(rounds, words.round)} of ${formatLength(workMs)}, ${formatLength(restMs)} off${first ? `: ${labelOf(first, 1)} for what is left` : ''}`
  },
  recognise: (rows, key, name) =>
    LAST_RESTS.map((lastRest) => ({
      ...buyIn.defaults(key, name),
      leadInMs: rows.leadInMs,
      rounds: Math.max(1, rows.rounds),
      workMs: usual(rows.works),
      restMs: usual(rows.rests),
      roundBreakMs: usual(rows.breaks),
      lastRest,
      restLabel: rows.rests[0]?.label ?? '',
      groups: rows.joined(JOIN),
    })),
}
