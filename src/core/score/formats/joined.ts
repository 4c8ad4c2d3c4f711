// Stations that share an interval with the one before them. Where nothing stands before, nothing is joined; and remarks
// of such a row stand above its first move, or beside its last.
import type { Station } from './station'

/** @returns the same section where nothing is out of place. */
export function withTrueJoins<T extends object>(section: T): T {
  if ('stations' in section) {
    const stations = section.stations as Station[]
    return stations.some(({ joined }) => joined) ? { ...section, stations: tidied(stations) } : section
  }
  if (!('groups' in section)) return section
  const groups = section.groups as Station[][]
  if (!groups.some((group) => group.some(({ joined }) => joined))) return section
  return { ...section, groups: groups.map((group) => group.map((one) => ({ ...one, joined: false }))) }
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
