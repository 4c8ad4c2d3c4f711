// Station by station (F2): all sets of one station, then a longer rest in which the next one is shown, then the next.
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
import { usual } from './rows'
import { labelIn, stations } from './station'

const schema = z.object({
  format: z.literal('byStation'),
  ...head,
  leadInMs: ms,
  sets: count(1, 500),
  workMs: ms,
  restMs: ms,
  changeMs: ms,
  lastRest,
  restLabel,
  stations,
})
type ByStation = z.infer<typeof schema>
export { schema as byStationSchema }

export const byStation: Format<ByStation> = {
  schema,
  notation: {
    head: 'stations',
    moves: 'flat',
    perMove: ['workMs', 'restMs', 'swaps'],
    fields: [
      counts('sets', 'sets', 1, 500),
      length('workMs', 'on'),
      length('restMs', 'off'),
      length('changeMs', 'to change'),
      LEAD,
      LAST,
      ACTIVE,
    ],
  },
  defaults: (key, name) => ({
    format: 'byStation',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    sets: 3,
    workMs: 40_000,
    restMs: 20_000,
    changeMs: 45_000,
    lastRest: 'replaced',
    restLabel: '',
    stations: [],
  }),
  expand(section, around) {
    const { sets, changeMs } = section
    const run = new Run(section.key, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const work = given(section.workMs, 'workMs'),
      rest = given(section.restMs, 'restMs'),
      change = given(changeMs, 'changeMs')
    const places = placed(section.stations, 'stations')
    places.forEach((one, index) => {
      const last = index === places.length - 1
      const closing = restStays(section.lastRest, {
        last,
        breakBetween: changeMs > 0,
        breakFollows: around.breakFollows,
      })
      for (let set = 1; set <= sets; set++) {
        const spot = { set, sets, station: index + 1, stations: places.length }
        run.turn(
          `s${index + 1}/set${set}`,
          one,
          set,
          ownWork(one, work),
          ownRest(one, rest),
          set < sets || closing,
          spot,
          section.restLabel,
        )
      }
      const next = places[index + 1]
      if (next) {
        run.pause(`s${index + 1}/change`, change, { station: index + 1, stations: places.length })
        const shown = run.segments.at(-1)
        if (shown?.kind === 'break') shown.note = `Shown now: ${labelIn(next.station, 1)}`
      }
    })
    return run.segments
  },
  describe: ({ sets, stations, workMs, restMs, changeMs }, { words }) =>
    `${counted(stations.length, words.station)} one by one, ${counted(sets, words.set)} each of ${formatLength(workMs)} on, ${formatLength(restMs)} off` +
    (changeMs && stations.length > 1 ? `, ${formatLength(changeMs)} to change` : ''),
  recognise: (rows, key, name) =>
    LAST_RESTS.map((lastRest) => ({
      ...byStation.defaults(key, name),
      leadInMs: rows.leadInMs,
      sets: Math.max(1, rows.sets),
      workMs: usual(rows.works),
      restMs: usual(rows.rests),
      changeMs: usual(rows.breaks),
      lastRest,
      restLabel: rows.rests[0]?.label ?? '',
      stations: rows.runs(),
    })),
}
