// Every minute, by time (F15): fixed work and rest that fill the minute.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { ACTIVE, counts, LAST_KEPT, LAST_RESTS, LEAD, length, sectionSchema } from './fields'
import { defineFormat, type Format, knobs } from './format'
import { slotStaysWhole } from './lastRest'
import { usual } from './rows'
import { placed, Run, type Length } from './run'

const fields = [
  counts('rounds', 'rounds', { usual: 4 }),
  length('workMs', 'on', { bare: 40_000 }),
  length('slotMs', 'slot', { bare: 60_000 }),
  LEAD,
  LAST_KEPT,
  ACTIVE,
] as const
export const minuteTimeSchema = sectionSchema('minuteTime', fields, 'flat')
type MinuteTime = z.infer<typeof minuteTimeSchema>

export const minuteTime: Format<MinuteTime> = defineFormat('minuteTime', {
  schema: minuteTimeSchema,
  words: { station: { one: 'minute', many: 'minutes' } },
  notation: { head: 'minute-time', fields, moves: 'flat', perMove: ['workMs', 'swaps'] },
  works: ({ stations, rounds }) => stations.length * rounds,
  solve: knobs('rounds', 'workMs', null, { timesHigh: 20 }),
  keeps: (_section, { emom }) => (emom === 'time' ? ['emom'] : []),
  expand(section, around) {
    const { rounds, slotMs } = section
    const run = new Run(section, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const places = placed(section.stations, 'stations').map((one) => {
      const field = one.station.workMs === null ? ['workMs'] : [...one.path, 'workMs']
      const workMs = Math.min(slotMs, one.station.workMs ?? section.workMs)
      const work: Length = { ms: workMs, field, baseMs: 0, times: 1, pace: 'fixed' }
      return { one, work, rest: { ...work, ms: slotMs - workMs, baseMs: slotMs, times: -1 } }
    })
    for (let round = 1; round <= rounds; round++) {
      const end = { last: round === rounds, breakBetween: false, follows: around.follows }
      places.forEach(({ one, work, rest }, at) =>
        run.turn({
          place: `r${round}/${one.key}`,
          one,
          work,
          rest,
          pass: round,
          closes: at < places.length - 1 || slotStaysWhole(section.lastRest, end),
          spot: { round, rounds, station: at + 1, stations: places.length },
        }),
      )
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
      restLabel: rows.restLabel,
      stations: rows.stations(),
    })),
})
