// Sets by reps (F17): no clock, sets times reps. The length is an estimate from seconds per rep.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { ACTIVE, count, counts, head, LAST, LAST_RESTS, lastRest, length, ms, restLabel, type Format } from './format'
import { intervalOf, USUAL_REPS } from './counting'
import { restStays } from './lastRest'
import { given, guessed, ownRest, placed, Run } from './run'
import { usual } from './rows'
import { stations, withReps } from './station'

const schema = z.object({
  format: z.literal('sets'),
  ...head,
  sets: count(1, 500),
  restMs: ms,
  changeMs: ms,
  lastRest,
  restLabel,
  stations,
})
type Sets = z.infer<typeof schema>
export { schema as setsSchema }

export const sets: Format<Sets> = {
  schema,
  notation: {
    head: 'sets',
    moves: 'flat',
    perMove: ['reps', 'restMs', 'swaps'],
    fields: [counts('sets', 'sets', 1, 500), length('restMs', 'off'), length('changeMs', 'to change'), LAST, ACTIVE],
  },
  defaults: (key, name) => ({
    format: 'sets',
    key,
    name,
    above: [],
    beside: '',
    sets: 3,
    restMs: 60_000,
    changeMs: 90_000,
    lastRest: 'replaced',
    restLabel: '',
    stations: [],
  }),
  expand(section, around) {
    const { sets: count, changeMs } = section
    const run = new Run(section.key, around)
    const places = placed(section.stations, 'stations')
    places.forEach((one, at) => {
      const last = at === places.length - 1
      const closing = restStays(section.lastRest, {
        last,
        breakBetween: changeMs > 0,
        breakFollows: around.breakFollows,
      })
      for (let set = 1; set <= count; set++) {
        const spot = { set, sets: count, station: at + 1, stations: places.length }
        run.turn(
          `s${at + 1}/set${set}`,
          one,
          set,
          guessed(intervalOf(one.station, set, around.cast)),
          ownRest(one, given(section.restMs, 'restMs')),
          set < count || closing,
          spot,
          section.restLabel,
        )
      }
      if (!last)
        run.pause(`s${at + 1}/change`, given(changeMs, 'changeMs'), { station: at + 1, stations: places.length })
    })
    return run.segments
  },
  describe: ({ sets: count, restMs, stations }, { words }) =>
    `${counted(count, words.set)} each of ${stations.map((station) => withReps({ ...station, reps: station.reps ?? USUAL_REPS }, 1)).join(', ') || 'no moves yet'}, at your own pace, ${formatLength(restMs)} off`,
  recognise: (rows, key, name) =>
    LAST_RESTS.map((lastRest) => ({
      ...sets.defaults(key, name),
      sets: Math.max(1, rows.sets),
      restMs: usual(rows.rests),
      changeMs: usual(rows.breaks),
      lastRest,
      restLabel: rows.rests[0]?.label ?? '',
      stations: rows.runs({ lengths: false }),
    })),
}
