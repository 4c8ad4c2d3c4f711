// Stations that share an interval with the one before them. Where nothing stands before, nothing is joined; and remarks
// of such a row stand above its first move, or beside its last. Those of a group stand at its first move.
import type { Station } from './station'

/** @returns the same section where nothing is out of place. */
export function withTrueJoins<T extends object>(section: T): T {
  if ('stations' in section) {
    const stations = section.stations as Station[]
    return stations.some(({ joined }) => joined) ? { ...section, stations: tidied(stations) } : section
  }
  if (!('groups' in section)) return section
  const groups = section.groups as Station[][]
  return groups.every(isTidyGroup) ? section : { ...section, groups: groups.map(tidyGroup) }
}

const isTidyGroup = (group: readonly Station[]): boolean =>
  group.every((one, at) => !one.joined && (at === 0 || (!one.above.length && !one.beside)))

function tidyGroup(group: readonly Station[]): Station[] {
  if (isTidyGroup(group)) return [...group]
  const later = group.slice(1).flatMap(({ above, beside }) => [...above, ...(beside ? [beside] : [])])
  return group.map((one, at) => ({
    ...one,
    joined: false,
    ...(at === 0 ? { above: [...one.above, ...later] } : { above: [], beside: '' }),
  }))
}

function tidied(stations: readonly Station[]): Station[] {
  const out: Station[] = []
  let first: Station | undefined
  for (const station of stations) {
    const before = out.at(-1)
    if (!station.joined || !first || !before) {
      first = { ...station, joined: false }
      out.push(first)
      continue
    }
    first.above = [...first.above, ...station.above, ...(before.beside ? [before.beside] : [])]
    before.beside = ''
    out.push({ ...station, above: [] })
  }
  return out
}
