// Couplet on a clock (F13): m reps of A, n reps of B, repeated until the time is up; count how many times round.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { timesRound } from '../reps'
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
  type Around,
  type Format,
} from './format'
import { roundsOfGroups } from './frames'
import { usual } from './rows'
import { groups, withReps, type Station } from './station'
import { groupSeconds } from './counting'

const schema = z.object({
  format: z.literal('couplet'),
  ...head,
  leadInMs: ms,
  rounds: count(1, 500),
  workMs: ms,
  restMs: ms,
  lastRest,
  restLabel,
  groups,
})
type Couplet = z.infer<typeof schema>
export { schema as coupletSchema }

const JOIN = ' + '

/** How many times round a group the time holds, by seconds per rep: an estimate. */
export const timesInCouplet = (group: readonly Station[], workMs: number, around: Pick<Around, 'cast'>): number =>
  timesRound(workMs, groupSeconds(group, 1, around.cast) * 1000)

export const couplet: Format<Couplet> = {
  schema,
  words: { station: { one: 'couplet', many: 'couplets' } },
  notation: {
    head: 'couplet',
    moves: 'groups',
    groupSize: [2, 0],
    perMove: ['reps', 'swaps'],
    fields: [length('workMs', 'on'), counts('rounds', 'rounds', 1, 500), length('restMs', 'off'), LEAD, LAST, ACTIVE],
  },
  defaults: (key, name) => ({
    format: 'couplet',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    rounds: 1,
    workMs: 360_000,
    restMs: 60_000,
    lastRest: 'replaced',
    restLabel: '',
    groups: [],
  }),
  expand: (section, around) =>
    roundsOfGroups(
      section,
      around,
      (group, round) => group.map((station) => withReps(station, round)).join(JOIN),
      (group) => {
        const times = timesInCouplet(group, section.workMs, around)
        return times ? { note: `About ${times} times round` } : {}
      },
    ),
  describe({ rounds, groups, workMs }, around) {
    const first = groups[0] ?? []
    const times = timesInCouplet(first, workMs, around)
    return (
      `${first.map((station) => withReps(station, 1)).join(JOIN) || 'Couplet'} until ${formatLength(workMs)} is up` +
      (rounds > 1 ? `, ${counted(rounds, around.words.round)}` : '') +
      (times ? `, about ${times} times round` : '')
    )
  },
  recognise: (rows, key, name) =>
    LAST_RESTS.map((lastRest) => ({
      ...couplet.defaults(key, name),
      leadInMs: rows.leadInMs,
      rounds: Math.max(1, rows.rounds),
      workMs: usual(rows.works),
      restMs: usual(rows.rests),
      lastRest,
      restLabel: rows.rests[0]?.label ?? '',
      groups: rows.joined(JOIN),
    })),
}
