// Circuit (F1): n stations, r rounds, work and rest, and a longer break between rounds.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { ACTIVE, counts, LAST, LAST_RESTS, LEAD, LEAD_EACH, length, sectionSchema } from './fields'
import { defineFormat, type Format, keepsTabata, knobs } from './format'
import { restStays } from './lastRest'
import { usual } from './rows'
import { given, ownRest, ownWork, placed, Run } from './run'

const fields = [
  counts('rounds', 'rounds', { usual: 3 }),
  length('workMs', 'on', { usual: 40_000 }),
  length('restMs', 'off', { usual: 20_000 }),
  length('roundBreakMs', 'between', { usual: 60_000 }),
  LEAD,
  LEAD_EACH,
  LAST,
  ACTIVE,
] as const
export const circuitSchema = sectionSchema('circuit', fields, 'flat')
export type Circuit = z.infer<typeof circuitSchema>

export const circuit: Format<Circuit> = defineFormat('circuit', {
  schema: circuitSchema,
  notation: { head: 'circuit', fields, moves: 'flat', perMove: ['workMs', 'restMs', 'swaps'] },
  works: ({ stations, rounds }) => stations.length * rounds,
  solve: knobs('rounds', 'workMs', 'restMs'),
  keeps: keepsTabata,
  expand(section, around) {
    const { rounds, roundBreakMs, stations } = section
    const run = new Run(section, around)
    if (!stations.length) return run.segments
    run.lead(section.leadInMs)
    const work = given(section.workMs, 'workMs'),
      rest = given(section.restMs, 'restMs'),
      pause = given(roundBreakMs, 'roundBreakMs')
    const places = placed(stations, 'stations').map((one) => ({
      one,
      work: ownWork(one, work),
      rest: ownRest(one, rest),
    }))
    for (let round = 1; round <= rounds; round++) {
      if (round > 1) run.leadEach(`r${round}`, section.eachLeadMs)
      const closing = restStays(section.lastRest, {
        last: round === rounds,
        breakBetween: roundBreakMs > 0,
        follows: around.follows,
      })
      places.forEach(({ one, work, rest }, index) =>
        run.turn({
          place: `r${round}/${one.key}`,
          one,
          work,
          rest,
          pass: round,
          closes: index < places.length - 1 || closing,
          spot: { round, rounds, station: index + 1, stations: places.length },
        }),
      )
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
      restLabel: rows.restLabel,
      stations: rows.stations(),
    })),
})
