// Per-round table (F8): each round has its own work and rest, given as a list, rising or falling.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { ACTIVE, LAST, LAST_RESTS, LEAD, length, sectionSchema, type WorkRestsField } from './fields'
import { defineFormat, type Format } from './format'
import { restStays } from './lastRest'
import { usual } from './rows'
import { given, placed, Run } from './run'

const ROUNDS: WorkRestsField<'rounds'> = {
  kind: 'workRests',
  field: 'rounds',
  word: 'rounds',
  bare: [{ workMs: 30_000, restMs: 15_000 }],
  usual: [
    { workMs: 40_000, restMs: 20_000 },
    { workMs: 35_000, restMs: 15_000 },
    { workMs: 30_000, restMs: 10_000 },
  ],
}
const fields = [ROUNDS, length('roundBreakMs', 'between'), LEAD, LAST, ACTIVE] as const
export const tableSchema = sectionSchema('table', fields, 'flat')
type Table = z.infer<typeof tableSchema>

export const table: Format<Table> = defineFormat('table', {
  schema: tableSchema,
  notation: { head: 'table', fields, moves: 'flat', perMove: ['swaps'] },
  works: ({ stations, rounds }) => stations.length * rounds.length,
  keeps: () => ['ladder'],
  expand(section, around) {
    const { rounds, roundBreakMs } = section
    const run = new Run(section, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const places = placed(section.stations, 'stations')
    rounds.forEach(({ workMs, restMs }, at) => {
      const last = at === rounds.length - 1
      const closing = restStays(section.lastRest, { last, breakBetween: roundBreakMs > 0, follows: around.follows })
      const work = given(workMs, 'rounds', at, 'workMs'),
        rest = given(restMs, 'rounds', at, 'restMs')
      const here = { round: at + 1, rounds: rounds.length }
      places.forEach((one, index) =>
        run.turn({
          place: `r${at + 1}/${one.key}`,
          one,
          pass: at + 1,
          work,
          rest,
          closes: index < places.length - 1 || closing,
          spot: { ...here, station: index + 1, stations: places.length },
        }),
      )
      if (!last) run.pause(`r${at + 1}/break`, given(roundBreakMs, 'roundBreakMs'), here)
    })
    return run.segments
  },
  describe: ({ rounds, stations }, { words }) =>
    `${counted(rounds.length, words.round)} of ${counted(stations.length, words.station)}: ${rounds.map(({ workMs, restMs }) => `${formatLength(workMs)}/${formatLength(restMs)}`).join(', ')}`,
  recognise: (rows, key, name) =>
    LAST_RESTS.map((lastRest) => {
      const rests = Array.from({ length: Math.max(1, rows.rounds) }, (_, at) =>
        usual(rows.rests.filter((row) => row.round === at + 1)),
      )
      return {
        ...table.defaults(key, name),
        leadInMs: rows.leadInMs,
        roundBreakMs: usual(rows.breaks),
        lastRest,
        restLabel: rows.restLabel,
        stations: rows.stations(),
        // A round whose only rest was dropped has its length nowhere; the one before is taken.
        rounds: rests.map((restMs, at) => ({
          workMs: usual(rows.worksIn(at + 1)),
          restMs: restMs || (rests[at - 1] ?? 0),
        })),
      }
    }),
})
