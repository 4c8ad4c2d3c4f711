// Uneven group (F11): inside a group each part has its own length, say long heavy, short cardio, long light, then rest.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { ACTIVE, choice, counts, LAST, LAST_RESTS, LEAD, length, sectionSchema } from './fields'
import { defineFormat, type Format, keepsTabata, knobs } from './format'
import { restStays } from './lastRest'
import { usual } from './rows'
import { given, groupKey, ownRest, ownWork, placed, Run } from './run'

/** All rounds of a group and then the next, or all groups in each round. */
const ORDERS = ['byGroup', 'byRound'] as const
const fields = [
  counts('rounds', 'rounds', { usual: 3 }),
  length('workMs', 'on', { usual: 40_000 }),
  length('restMs', 'off', { usual: 30_000 }),
  length('groupBreakMs', 'between', { usual: 60_000 }),
  choice('order', 'order', ORDERS),
  LEAD,
  LAST,
  ACTIVE,
] as const
export const unevenSchema = sectionSchema('uneven', fields, 'groups')
type Uneven = z.infer<typeof unevenSchema>

/** Group and round of each turn, in order. */
const turnsOf = ({ groups, rounds, order }: Uneven): { at: number; round: number }[] =>
  order === 'byGroup'
    ? groups.flatMap((_, at) => Array.from({ length: rounds }, (_unused, index) => ({ at, round: index + 1 })))
    : Array.from({ length: rounds }, (_, index) => groups.map((_unused, at) => ({ at, round: index + 1 }))).flat()

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
    const turns = turnsOf(section)
    turns.forEach(({ at, round }, turn) => {
      const group = groups[at] ?? []
      const lastTurn = turn === turns.length - 1
      const pauses = !lastTurn && turns[turn + 1]?.at !== at && groupBreakMs > 0
      const between = { set: at + 1, sets: groups.length }
      const end = { last: lastTurn, breakBetween: pauses, follows: around.follows }
      const places = placed(group, 'groups', at)
      const closing = (!lastTurn && !pauses) || restStays(section.lastRest, end)
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
      if (!pauses) return
      const place = section.order === 'byGroup' ? groupKey(group) : `r${round}/${groupKey(group)}`
      run.pause(`${place}/break`, given(groupBreakMs, 'groupBreakMs'), between)
    })
    return run.segments
  },
  describe(section, { words }) {
    const { rounds, groups, workMs, restMs } = section
    const parts = (groups[0] ?? []).map((station) => formatLength(station.workMs ?? workMs)).join(', ')
    const order =
      section.order === 'byGroup'
        ? `${counted(groups.length, words.set)}, each ${counted(rounds, words.round)}`
        : `${counted(rounds, words.round)} of ${counted(groups.length, words.set)}`
    return `${order}${parts ? `: ${parts} on` : ''}, then ${formatLength(restMs)} off`
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
