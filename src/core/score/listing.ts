// A section as a free list, and a free list recognised back into the format that gives exactly the same intervals.
import { expandSection, FORMAT_NAMES, formatNamed, newList, stationsOf, type FormatName, type Section } from './formats'
import type { Around } from './formats/format'
import { withKeys } from './formats/keys'
import type { FreeList } from './formats/list'
import { newRow, type ListRow } from './formats/row'
import { Rows } from './formats/rows'
import type { Segment } from './segment'
import { clipped } from '../text'

/** A segment as a row whose own segment has the same id, so that a tie to it stays. */
const rowOf = (segment: Segment, around: Around): ListRow => {
  const move = segment.kind === 'work' ? around.cast(segment.label) : null
  return newRow({
    key: segment.id.slice(segment.sectionKey.length + 1),
    kind: segment.kind,
    label: clipped(segment.label, 300),
    side: segment.side,
    round: segment.round,
    set: segment.set,
    durationMs: segment.kind === 'talk' && !segment.durationMs ? null : segment.durationMs,
    estimated: segment.estimated && segment.kind !== 'talk',
    reps: segment.reps,
    posture: move && move.posture !== segment.posture ? segment.posture : null,
    effort: move && move.effort !== segment.effort ? segment.effort : null,
  })
}

/** The same intervals, one by one; key, name and remarks stay. */
export function toList(section: Section, around: Around): FreeList {
  if ('rows' in section) return section
  const { key, name, above, beside, format } = section
  const rows = expandSection(section, around).map((segment) => rowOf(segment, around))
  return withKeys({ ...newList(key, name, rows), above, beside, from: format })
}

/** Everything of a row that a viewer sees or hears; what recognition must not change. */
const telling = (row: ListRow): string =>
  JSON.stringify([
    row.kind,
    row.label,
    row.side,
    row.round,
    row.set,
    row.durationMs ?? 0,
    row.estimated,
    row.reps,
    row.posture,
    row.effort,
  ])

/**
 * The format that this list came from, or else the first that gives exactly its intervals.
 * @returns the section, or null where no format does.
 */
export function recognise(list: FreeList, around: Around): Section | null {
  if (!list.rows.length) return null
  const rows = new Rows(list.rows)
  const wanted = list.rows.map(telling)
  const names: FormatName[] = list.from
    ? [list.from, ...FORMAT_NAMES.filter((name) => name !== list.from)]
    : [...FORMAT_NAMES]
  for (const name of names) {
    const recogniser = formatNamed(name).recognise
    if (!recogniser) continue
    for (const guess of recogniser(rows, list.key, list.name)) {
      const section = { ...guess, above: list.above, beside: list.beside }
      if (!formatNamed(name).schema.safeParse(section).success) continue
      const got = expandSection(section, around)
      const same = got.length === wanted.length && got.every((one, at) => telling(rowOf(one, around)) === wanted[at])
      if (same) return withKeysOf(section, got, list.rows)
    }
  }
  return null
}

/** A part of a row's key that says where it stands, not whose it is. */
const COUNTER = /^(?:[rg]\d+|set\d+|work|rest|left|right|up|down)$/

/** Stations take the keys that their intervals had in the list, so that ties stay with them. */
function withKeysOf(section: Section, got: readonly Segment[], rows: readonly ListRow[]): Section {
  const stations = stationsOf(section)
  const places = new Map(stationPaths(section).map((path, index) => [path, stations[index]]))
  got.forEach(({ origin }, at) => {
    const station = origin?.station ? places.get(origin.station.join('/')) : undefined
    const key = rows[at]?.key.split('/').find((part) => !COUNTER.test(part))
    if (station && !station.key && key) station.key = key
  })
  return withKeys(section)
}

const stationPaths = (section: Section): string[] =>
  'groups' in section
    ? section.groups.flatMap((group, at) => group.map((_, index) => `groups/${at}/${index}`))
    : stationsOf(section).map((_, index) => `stations/${index}`)
