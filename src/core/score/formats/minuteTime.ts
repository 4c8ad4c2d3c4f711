// Every minute, by time (F15): fixed work and rest that fill the minute.
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
import { placed, Run, type Length } from './run'
import { usual } from './rows'
import { stations } from './station'

const schema = z.object({
  format: z.literal('minuteTime'),
  ...head,
  leadInMs: ms,
  slotMs: ms,
  workMs: ms,
  rounds: count(1, 500),
  lastRest,
  restLabel,
  stations,
})
type MinuteTime = z.infer<typeof schema>
export { schema as minuteTimeSchema }

export const minuteTime: Format<MinuteTime> = {
  schema,
  words: { station: { one: 'minute', many: 'minutes' } },
  notation: {
    head: 'minute-time',
    moves: 'flat',
    perMove: ['workMs', 'swaps'],
    fields: [
      counts('rounds', 'rounds', 1, 500),
      length('workMs', 'on', 40_000),
      length('slotMs', 'slot', 60_000),
      LEAD,
      LAST,
      ACTIVE,
    ],
  },
  defaults: (key, name) => ({
    format: 'minuteTime',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    slotMs: 60_000,
    workMs: 40_000,
    rounds: 4,
    lastRest: 'kept',
    restLabel: '',
    stations: [],
  }),
  expand(section, around) {
    const { rounds, slotMs } = section
    const run = new Run(section.key, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const places = placed(section.stations, 'stations').map((one) => {
      const field = one.station.workMs === null ? ['workMs'] : [...one.path, 'workMs']
      const workMs = Math.min(slotMs, one.station.workMs ?? section.workMs)
      const work: Length = { ms: workMs, field, baseMs: 0, times: 1, estimated: false }
      return { ...one, work, rest: { ...work, ms: slotMs - workMs, baseMs: slotMs, times: -1 } }
    })
    for (let round = 1; round <= rounds; round++) {
      places.forEach((one, at) => {
        const closing =
          at < places.length - 1 ||
          restStays(section.lastRest, {
            last: round === rounds,
            breakBetween: false,
            breakFollows: around.breakFollows,
          })
        run.turn(
          `r${round}/s${at + 1}`,
          one,
          round,
          one.work,
          one.rest,
          closing,
          { round, rounds, station: at + 1, stations: places.length },
          section.restLabel,
        )
      })
    }
    return run.segments
  },
  describe: ({ rounds, slotMs, workMs, stations }, { words }) =>
    `${counted(rounds, words.round)} of ${counted(stations.length, words.station)}, ${formatLength(workMs)} on and ${formatLength(Math.max(0, slotMs - workMs))} off, every ${formatLength(slotMs)}`,
  recognise: (rows, key, name) =>
    LAST_RESTS.map((lastRest) => ({
      ...minuteTime.defaults(key, name),
      leadInMs: rows.leadInMs,
      slotMs: (rows.works[0]?.durationMs ?? 0) + (rows.rests[0]?.durationMs ?? 0),
      workMs: usual(rows.works),
      rounds: Math.max(1, rows.rounds),
      lastRest,
      restLabel: rows.rests[0]?.label ?? '',
      stations: rows.stations(),
    })),
}
