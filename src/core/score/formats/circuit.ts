// Circuit (F1): n stations, r rounds, work and rest, and a longer break between rounds.
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
import { stations } from './station'
import { usual } from './rows'

const schema = z.object({
  format: z.literal('circuit'),
  ...head,
  leadInMs: ms,
  rounds: count(1, 500),
  workMs: ms,
  restMs: ms,
  roundBreakMs: ms,
  lastRest,
  restLabel,
  stations,
})
export type Circuit = z.infer<typeof schema>
export { schema as circuitSchema }

export const circuit: Format<Circuit> = {
  schema,
  notation: {
    head: 'circuit',
    moves: 'flat',
    perMove: ['workMs', 'restMs', 'swaps'],
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
    format: 'circuit',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    rounds: 3,
    workMs: 40_000,
    restMs: 20_000,
    roundBreakMs: 60_000,
    lastRest: 'replaced',
    restLabel: '',
    stations: [],
  }),
  expand(section, around) {
    const { rounds, roundBreakMs, stations } = section
    const run = new Run(section.key, around)
    if (!stations.length) return run.segments
    run.lead(section.leadInMs)
    const work = given(section.workMs, 'workMs'),
      rest = given(section.restMs, 'restMs'),
      pause = given(roundBreakMs, 'roundBreakMs')
    const places = placed(stations, 'stations').map((one) => ({
      ...one,
      work: ownWork(one, work),
      rest: ownRest(one, rest),
    }))
    for (let round = 1; round <= rounds; round++) {
      const closing = restStays(section.lastRest, {
        last: round === rounds,
        breakBetween: roundBreakMs > 0,
        breakFollows: around.breakFollows,
      })
      places.forEach((one, index) => {
        const spot = { round, rounds, station: index + 1, stations: places.length }
        run.turn(
          `r${round}/s${index + 1}`,
          one,
          round,
          one.work,
          one.rest,
          index < places.length - 1 || closing,
          spot,
          section.restLabel,
        )
      })
      if (round < rounds) run.pause(`r${round}/break`, pause, { round, rounds })
    }
    return run.segments
  },
  describe: ({ rounds, stations, workMs, restMs, roundBreakMs }, { words }) =>
    `${counted(rounds, words.round)} of ${counted(stations.length, words.station)}, ${formatLength(workMs)} on, ${formatLength(restMs)} off` +
    (rounds > 1 && roundBreakMs ? `, ${formatLength(roundBreakMs)} between ${words.round.many}` : ''),
  recognise: (rows, key, name) =>
    LAST_RESTS.map((lastRest) => ({
      ...circuit.defaults(key, name),
      leadInMs: rows.leadInMs,
      rounds: Math.max(1, rows.rounds),
      workMs: usual(rows.worksIn(1)),
      restMs: usual(rows.rests),
      roundBreakMs: usual(rows.breaks),
      lastRest,
      restLabel: rows.rests[0]?.label ?? '',
      stations: rows.stations(),
    })),
}
