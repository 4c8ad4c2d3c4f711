// Frames that formats share: once through the stations of a part that may be elsewhere, and rounds of groups of which each is one interval.
import type { Ms } from '../../units'
import type { Segment } from '../segment'
import type { Around, LastRest } from './format'
import { restStays } from './lastRest'
import { remind, type Outside } from './outside'
import { given, placed, Run, type Length, type Placed, type Spot } from './run'
import type { Station } from './station'

/** @param turn the station as it is done, and for how long. */
export function onceThrough(
  section: Outside & { leadInMs: Ms; stations: Station[] },
  around: Around,
  turn: (one: Placed) => { one: Placed; work: Length },
): Segment[] {
  const run = new Run(section.key, around)
  if (section.where !== 'here') remind(run, section)
  else if (section.stations.length) {
    run.lead(section.leadInMs)
    const places = placed(section.stations, 'stations')
    places.forEach((place, at) => {
      const { one, work } = turn(place)
      run.turn(`s${at + 1}`, one, 1, work, null, false, { station: at + 1, stations: places.length })
    })
  }
  return run.segments
}

interface GroupRounds {
  key: string
  leadInMs: Ms
  rounds: number
  workMs: Ms
  restMs: Ms
  roundBreakMs?: Ms
  lastRest: LastRest
  restLabel: string
  groups: Station[][]
}

/** @param label what a group is called in a round. @param note on its interval, for who watches; and reps where they are counted. */
export function roundsOfGroups(
  section: GroupRounds,
  around: Around,
  label: (group: readonly Station[], round: number) => string,
  note: (group: readonly Station[], round: number) => Partial<Pick<Segment, 'note' | 'reps'>>,
): Segment[] {
  const { rounds, groups, roundBreakMs = 0 } = section
  const run = new Run(section.key, around)
  if (!groups.length) return run.segments
  run.lead(section.leadInMs)
  const work = given(section.workMs, 'workMs'),
    rest = given(section.restMs, 'restMs')
  for (let round = 1; round <= rounds; round++) {
    groups.forEach((group, at) => {
      const spot: Spot = { round, rounds, station: at + 1, stations: groups.length }
      const place = `r${round}/s${at + 1}`
      Object.assign(
        run.together(place, placed(group, 'groups', at), round, label(group, round), work, spot),
        note(group, round),
      )
      const closing =
        at < groups.length - 1 ||
        restStays(section.lastRest, {
          last: round === rounds,
          breakBetween: roundBreakMs > 0,
          breakFollows: around.breakFollows,
        })
      if (closing) run.rest(`${place}/rest`, rest, spot, section.restLabel)
    })
    if (round < rounds) run.pause(`r${round}/break`, given(roundBreakMs, 'roundBreakMs'), { round, rounds })
  }
  return run.segments
}
