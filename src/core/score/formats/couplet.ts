// Couplet on a clock (F13): m reps of A, n reps of B, repeated until the time is up; count how many times round.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { timesRound } from '../reps'
import { counted } from '../vocabulary'
import { groupSeconds } from './counting'
import { ACTIVE, counts, LAST, LAST_RESTS, LEAD, length, sectionSchema } from './fields'
import { type Around, defineFormat, type Format, keepsTabata } from './format'
import { roundsOfGroups } from './frames'
import { usual } from './rows'
import { JOIN } from './run'
import { withReps, type Station } from './station'

const fields = [
  length('workMs', 'on', { usual: 360_000 }),
  counts('rounds', 'rounds'),
  length('restMs', 'off', { usual: 60_000 }),
  LEAD,
  LAST,
  ACTIVE,
] as const
export const coupletSchema = sectionSchema('couplet', fields, 'groups')
type Couplet = z.infer<typeof coupletSchema>

/** How many times round a group the time holds, by seconds per rep: an estimate. */
const timesInCouplet = (group: readonly Station[], workMs: number, around: Pick<Around, 'cast'>): number =>
  timesRound(workMs, groupSeconds(group, 1, around.cast) * 1000)

export const couplet: Format<Couplet> = defineFormat('couplet', {
  schema: coupletSchema,
  words: { station: { one: 'couplet', many: 'couplets' } },
  notation: { head: 'couplet', fields, moves: 'groups', groupSize: [2, 0], perMove: ['reps', 'swaps'] },
  works: ({ groups, rounds }) => groups.flat().length * rounds,
  keeps: (section, readings) =>
    readings.tabata === 'strict' && section.workMs === 20_000 && section.restMs === 10_000 && section.rounds === 8
      ? ['tabata']
      : keepsTabata(section, readings),
  usualReps: () => 10,
  findings: ({ groups, workMs }, around) =>
    groups.flatMap((group, at) =>
      timesInCouplet(group, workMs, around) >= 1
        ? []
        : [
            {
              check: 'couplet',
              id: String(at),
              severity: 'warning' as const,
              fact: { code: 'couplet-too-short' as const, workMs, moves: group.map((station) => station.label) },
              mend: null,
            },
          ],
    ),
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
      restLabel: rows.restLabel,
      groups: rows.joined(JOIN),
    })),
})
