// Frames that formats share: once through the stations of a part that may be elsewhere, and rounds of groups of which
// each is one interval.
import type { Ms } from '../../units'
import type { Segment } from '../segment'
import type { LastRest } from './fields'
import type { Around } from './format'
import { restStays } from './lastRest'
import { remind, type Outside } from './outside'
import { given, groupKey, NOWHERE, placed, Run, type Length, type Placed, type Spot } from './run'
import type { Station } from './station'

/** Once or more often through the stations. @param turn the station as it is done in a round, and for how long. */
export function onceThrough(
  section: Outside & { leadInMs: Ms; rounds: number; restMs: Ms; roundBreakMs: Ms; stations: Station[] },
  around: Around,
  turn: (one: Placed, round: number) => { one: Placed; work: Length },
): Segment[] {
  const run = new Run(section, around)
  if (section.where !== 'here') remind(run, section)
  else if (section.stations.length) {
    run.lead(section.leadInMs)
    const places = placed(section.stations, 'stations')
    const { rounds, roundBreakMs } = section
    const rest = section.restMs ? given(section.restMs, 'restMs') : null
    for (let round = 1; round <= rounds; round++) {
      const rounded = rounds > 1 ? { round, rounds } : NOWHERE
      places.forEach((place, at) => {
        const closes = at < places.length - 1 || (round < rounds && !roundBreakMs)
        run.turn({
          ...turn(place, round),
          place: rounds > 1 ? `r${round}/${place.key}` : place.key,
          pass: round,
          rest,
          closes,
          spot: { ...rounded, station: at + 1, stations: places.length },
        })
      })
      if (round < rounds) run.pause(`r${round}/break`, given(roundBreakMs, 'roundBreakMs'), { round, rounds })
    }
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

/** @param label what a group is called in a round. @param note on its interval, and its reps where they are counted. */
export function roundsOfGroups(
  section: GroupRounds,
  around: Around,
  label: (group: readonly Station[], round: number) => string,
  note: (group: readonly Station[], round: number) => Partial<Pick<Segment, 'note' | 'reps'>>,
): Segment[] {
  const { rounds, groups, roundBreakMs = 0 } = section
  const run = new Run(section, around)
  if (!groups.length) return run.segments
  run.lead(section.leadInMs)
  const work = given(section.workMs, 'workMs'),
    rest = given(section.restMs, 'restMs')
  for (let round = 1; round <= rounds; round++) {
    const end = { last: round === rounds, breakBetween: roundBreakMs > 0, follows: around.follows }
    groups.forEach((group, at) => {
      const spot: Spot = { round, rounds, station: at + 1, stations: groups.length }
      const place = `r${round}/${groupKey(group)}`
      const places = placed(group, 'groups', at)
      const laid = run.together({ place, placed: places, pass: round, label: label(group, round), work, spot })
      Object.assign(laid, note(group, round))
      const closing = at < groups.length - 1 || restStays(section.lastRest, end)
      if (closing) run.rest(`${place}/rest`, rest, spot)
    })
    if (round < rounds) run.pause(`r${round}/break`, given(roundBreakMs, 'roundBreakMs'), { round, rounds })
  }
  return run.segments
}
