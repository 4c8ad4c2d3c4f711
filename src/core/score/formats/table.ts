// Per-round table (F8): each round has its own work and rest, given as a list, rising or falling.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { ACTIVE, head, LAST, LAST_RESTS, lastRest, LEAD, length, ms, restLabel, type Format } from './format'
import { restStays } from './lastRest'
import { given, placed, Run } from './run'
import { usual } from './rows'
import { stations } from './station'

const schema = z.object({
  format: z.literal('table'),
  ...head,
  leadInMs: ms,
  rounds: z
    .array(z.object({ workMs: ms, restMs: ms }))
    .min(1)
    .max(500),
  roundBreakMs: ms,
  lastRest,
  restLabel,
  stations,
})
type Table = z.infer<typeof schema>
export { schema as tableSchema }

export const table: Format<Table> = {
  schema,
  notation: {
    head: 'table',
    moves: 'flat',
    perMove: ['swaps'],
    fields: [
      { kind: 'workRests', field: 'rounds', word: 'rounds', bare: [{ workMs: 30_000, restMs: 15_000 }] },
      length('roundBreakMs', 'between'),
      LEAD,
      LAST,
      ACTIVE,
    ],
  },
  defaults: (key, name) => ({
    format: 'table',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    roundBreakMs: 0,
    lastRest: 'replaced',
    restLabel: '',
    stations: [],
    rounds: [
      { workMs: 40_000, restMs: 20_000 },
      { workMs: 35_000, restMs: 15_000 },
      { workMs: 30_000, restMs: 10_000 },
    ],
  }),
  expand(section, around) {
    const { rounds, roundBreakMs } = section
    const run = new Run(section.key, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const places = placed(section.stations, 'stations')
    rounds.forEach(({ workMs, restMs }, at) => {
      const last = at === rounds.length - 1
      const closing = restStays(section.lastRest, {
        last,
        breakBetween: roundBreakMs > 0,
        breakFollows: around.breakFollows,
      })
      const work = given(workMs, 'rounds', at, 'workMs'),
        rest = given(restMs, 'rounds', at, 'restMs')
      places.forEach((one, index) => {
        const spot = { round: at + 1, rounds: rounds.length, station: index + 1, stations: places.length }
        run.turn(
          `r${at + 1}/s${index + 1}`,
          one,
          at + 1,
          work,
          rest,
          index < places.length - 1 || closing,
          spot,
          section.restLabel,
        )
      })
      if (!last)
        run.pause(`r${at + 1}/break`, given(roundBreakMs, 'roundBreakMs'), { round: at + 1, rounds: rounds.length })
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
      // A round whose only rest was dropped has its length nowhere; the one before is taken.
      return {
        ...table.defaults(key, name),
        leadInMs: rows.leadInMs,
        roundBreakMs: usual(rows.breaks),
        lastRest,
        restLabel: rows.rests[0]?.label ?? '',
        stations: rows.stations(),
        rounds: rests.map((restMs, at) => ({
          workMs: usual(rows.worksIn(at + 1)),
          restMs: restMs || (rests[at - 1] ?? 0),
        })),
      }
    }),
}
