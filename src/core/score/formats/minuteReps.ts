// Every minute, by reps (F14): a target at the top of each slot; what is left of the slot is rest. If more than the wanted
// rest is left, a rep can be added; if less, one is taken off. score/schools.ts holds what people understand by the word.
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
import { groupSeconds, intervalOf } from './counting'
import { restStays } from './lastRest'
import { guessed, placed, Run } from './run'
import { stations, withReps } from './station'

const schema = z.object({
  format: z.literal('minuteReps'),
  ...head,
  leadInMs: ms,
  slotMs: ms,
  rounds: count(1, 500),
  /** The rest that the reps should leave. */
  wantedRestMs: ms,
  lastRest,
  restLabel,
  stations,
})
type MinuteReps = z.infer<typeof schema>
export { schema as minuteRepsSchema }

export const minuteReps: Format<MinuteReps> = {
  schema,
  words: { station: { one: 'minute', many: 'minutes' } },
  notation: {
    head: 'minute-reps',
    moves: 'flat',
    perMove: ['reps', 'swaps'],
    fields: [
      counts('rounds', 'rounds', 1, 500),
      length('slotMs', 'slot', 60_000),
      length('wantedRestMs', 'wanted rest', 15_000),
      LEAD,
      LAST,
      ACTIVE,
    ],
  },
  defaults: (key, name) => ({
    format: 'minuteReps',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    slotMs: 60_000,
    rounds: 4,
    wantedRestMs: 15_000,
    lastRest: 'kept',
    restLabel: '',
    stations: [],
  }),
  expand(section, around) {
    const { rounds, slotMs } = section
    const run = new Run(section.key, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const places = placed(section.stations, 'stations')
    for (let round = 1; round <= rounds; round++) {
      places.forEach((one, at) => {
        const spot = { round, rounds, station: at + 1, stations: places.length }
        const place = `r${round}/s${at + 1}`
        const fullMs = Math.round(groupSeconds([one.station], round, around.cast) * 1000)
        const eachMs = intervalOf(one.station, round, around.cast)
        // Targets that overflow the slot are cut to it; a finding says so.
        const share = fullMs > slotMs ? slotMs / fullMs : 1
        const before = run.segments.length
        run.turn(place, one, round, guessed(Math.floor(eachMs * share)), null, false, spot)
        let spentMs = 0
        for (let index = before; index < run.segments.length; index++) spentMs += run.segments[index]?.durationMs ?? 0
        const closing =
          at < places.length - 1 ||
          restStays(section.lastRest, {
            last: round === rounds,
            breakBetween: false,
            breakFollows: around.breakFollows,
          })
        if (closing) run.rest(`${place}/rest`, guessed(slotMs - spentMs), spot, section.restLabel)
      })
    }
    return run.segments
  },
  describe: ({ rounds, slotMs, stations, wantedRestMs }, { words }) =>
    `${counted(rounds * stations.length, slotMs === 60_000 ? { one: 'minute', many: 'minutes' } : { one: 'slot', many: 'slots' })} of ${formatLength(slotMs)}, ${counted(rounds, words.round)}: ` +
    `${stations.map((station) => withReps(station, 1)).join(', ') || 'no moves yet'}, the rest of each is rest, about ${formatLength(wantedRestMs)} wanted`,
  recognise(rows, key, name) {
    const slotMs = rows.all
      .filter((row) => row.kind !== 'lead' && row.kind !== 'talk')
      .slice(0, rows.all.findIndex((row) => row.kind === 'rest') + 1 - (rows.leadInMs ? 1 : 0))
      .reduce((sum, row) => sum + (row.durationMs ?? 0), 0)
    return LAST_RESTS.map((lastRest) => ({
      ...minuteReps.defaults(key, name),
      leadInMs: rows.leadInMs,
      slotMs,
      rounds: Math.max(1, rows.rounds),
      lastRest,
      restLabel: rows.rests[0]?.label ?? '',
      stations: rows.stations({ lengths: false }),
    }))
  },
}
