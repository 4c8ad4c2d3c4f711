// Station by station (F2): all sets of one station, then a longer rest in which the next one is shown, then the next.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { ACTIVE, counts, LAST, LAST_RESTS, LEAD, length, sectionSchema } from './fields'
import { defineFormat, type Format, keepsTabata, knobs } from './format'
import { restStays } from './lastRest'
import { usual } from './rows'
import { given, ownRest, ownWork, placed, Run } from './run'
import { labelIn } from './station'

const fields = [
  counts('sets', 'sets', { usual: 3 }),
  length('workMs', 'on', { usual: 40_000 }),
  length('restMs', 'off', { usual: 20_000 }),
  length('changeMs', 'to change', { usual: 45_000 }),
  LEAD,
  LAST,
  ACTIVE,
] as const
export const byStationSchema = sectionSchema('byStation', fields, 'flat')
type ByStation = z.infer<typeof byStationSchema>

export const byStation: Format<ByStation> = defineFormat('byStation', {
  schema: byStationSchema,
  notation: { head: 'stations', fields, moves: 'flat', perMove: ['workMs', 'restMs', 'swaps'] },
  works: ({ stations, sets }) => stations.length * sets,
  solve: knobs('sets', 'workMs', 'restMs'),
  keeps: keepsTabata,
  expand(section, around) {
    const { sets, changeMs } = section
    const run = new Run(section, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const work = given(section.workMs, 'workMs'),
      rest = given(section.restMs, 'restMs'),
      change = given(changeMs, 'changeMs')
    const places = placed(section.stations, 'stations')
    places.forEach((one, index) => {
      const last = index === places.length - 1
      const closing = restStays(section.lastRest, { last, breakBetween: changeMs > 0, follows: around.follows })
      const here = { station: index + 1, stations: places.length }
      for (let set = 1; set <= sets; set++) {
        run.turn({
          place: `${one.key}/set${set}`,
          one,
          pass: set,
          work: ownWork(one, work),
          rest: ownRest(one, rest),
          closes: set < sets || closing,
          spot: { set, sets, ...here },
        })
      }
      const next = places[index + 1]
      if (next) {
        run.pause(`${one.key}/change`, change, here)
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
      restLabel: rows.restLabel,
      stations: rows.runs(),
    })),
})
