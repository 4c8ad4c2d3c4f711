// Sets by reps (F17): no clock, sets times reps. The length is an estimate from seconds per rep.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { USUAL_REPS } from './counting'
import { ACTIVE, counts, LAST, LAST_RESTS, length, sectionSchema } from './fields'
import { defineFormat, type Format } from './format'
import { restStays } from './lastRest'
import { usual } from './rows'
import { given, ownPace, ownRest, placed, Run } from './run'
import { withReps } from './station'

const fields = [
  counts('sets', 'sets', { usual: 3 }),
  length('restMs', 'off', { usual: 60_000 }),
  length('changeMs', 'to change', { usual: 90_000 }),
  LAST,
  ACTIVE,
] as const
export const setsSchema = sectionSchema('sets', fields, 'flat')
type Sets = z.infer<typeof setsSchema>

export const sets: Format<Sets> = defineFormat('sets', {
  schema: setsSchema,
  notation: { head: 'sets', fields, moves: 'flat', perMove: ['workMs', 'reps', 'restMs', 'swaps'] },
  works: ({ stations, sets: count }) => stations.length * count,
  expand(section, around) {
    const { sets: count, changeMs } = section
    const run = new Run(section, around)
    const rest = given(section.restMs, 'restMs')
    const places = placed(section.stations, 'stations')
    places.forEach((one, at) => {
      const last = at === places.length - 1
      const end = { last, breakBetween: changeMs > 0, follows: around.follows }
      const closing = restStays(section.lastRest, end)
      const here = { station: at + 1, stations: places.length }
      for (let set = 1; set <= count; set++) {
        run.turn({
          place: `${one.key}/set${set}`,
          one,
          pass: set,
          work: ownPace(one, set, around.cast),
          rest: ownRest(one, rest),
          closes: set < count || closing,
          spot: { set, sets: count, ...here },
        })
      }
      if (!last) run.pause(`${one.key}/change`, given(changeMs, 'changeMs'), here)
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
      restLabel: rows.restLabel,
      stations: rows.runs({ lengths: false }),
    })),
})
