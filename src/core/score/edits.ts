// Edits made on segments and carried to the plan that they come from. Each changes a score in place and says nothing
// where a segment has no such origin.
import { swapIn, type Station } from './formats/station'
import type { ListRow } from './formats/row'
import type { SideRule } from './postures'
import type { Score } from './score'
import type { Path, Segment } from './segment'
import type { Ms } from '../units'

/** Sets a field of a section, found by its key; nothing where the section or the way is gone. */
export function setField(score: Score, sectionKey: string, path: Path, value: unknown): void {
  const section = score.sections.find((one) => one.key === sectionKey)
  let inside: unknown = section
  for (const step of path.slice(0, -1)) inside = (inside as Record<string | number, unknown> | undefined)?.[step]
  const last = path.at(-1)
  if (inside && typeof inside === 'object' && last !== undefined)
    (inside as Record<string | number, unknown>)[last] = value
}

/** The value that the deciding field must have for a segment to last so long; null where no field decides. */
export function fieldFor(segment: Segment, durationMs: number): { path: Path; value: number } | null {
  const length = segment.origin?.length
  if (!length || !length.times) return null
  const value = Math.round((durationMs - length.baseMs) / length.times)
  return value >= 0 && value <= 86_400_000 ? { path: length.field, value } : null
}

/** The thing at a path of a section, or undefined. */
function at(score: Score, sectionKey: string, path: Path): unknown {
  let inside: unknown = score.sections.find((one) => one.key === sectionKey)
  for (const step of path) inside = (inside as Record<string | number, unknown> | undefined)?.[step]
  return inside
}

export function setLength(score: Score, segment: Segment, durationMs: Ms): void {
  const field = fieldFor(segment, durationMs)
  if (field) setField(score, segment.sectionKey, field.path, field.value)
}

/** Where a rest or break stands in its section, if it can last otherwise than its like. */
export const gapOf = ({ id, sectionKey, kind, origin }: Segment): string | null =>
  (kind === 'rest' || kind === 'break') && origin ? id.slice(sectionKey.length + 1) : null

/** Gives one gap a length of its own, or takes it off again. */
export function setGap(score: Score, segment: Segment, ms: Ms | null): void {
  const place = gapOf(segment)
  const section = score.sections.find(({ key }) => key === segment.sectionKey)
  if (!place || !section) return
  if (ms === null) Reflect.deleteProperty(section.gaps, place)
  else section.gaps[place] = ms
}

/** Renames the move: that of the pass, where a swap has taken its place. */
export function setLabel(score: Score, segment: Segment, label: string): void {
  const path = segment.origin?.station
  if (!path) {
    if (segment.kind === 'talk' || segment.kind === 'break') setField(score, segment.sectionKey, ['name'], label)
    return
  }
  const held = at(score, segment.sectionKey, path) as Partial<Station> | undefined
  if (!held) return
  const pass = segment.origin?.pass ?? 1
  const swap = swapIn(
    (held.swaps ?? []).filter((one) => one.label),
    pass,
  )
  if (swap) swap.label = label
  else held.label = label
}

export function setSide(score: Score, segment: Segment, rule: SideRule | null): void {
  const path = segment.origin?.station
  if (!path) return
  const held = at(score, segment.sectionKey, path) as Partial<Station & ListRow> | undefined
  if (!held) return
  const swap = 'swaps' in held ? swapIn(held.swaps ?? [], segment.origin?.pass ?? 1) : null
  if (swap && (swap.label || swap.sideRule !== null)) swap.sideRule = rule
  else if ('sideRule' in held) held.sideRule = rule
  else if ('side' in held)
    held.side = rule === 'left' || rule === 'right' || rule === 'both' ? rule : rule === 'halves' ? 'switch' : null
}

/** Takes out the stations (or rows) that these segments come from, each once; groups left empty go too. */
export function removeMoves(score: Score, segments: readonly Segment[]): void {
  const ways = new Map<string, { sectionKey: string; path: Path }>()
  for (const { sectionKey, origin } of segments)
    if (origin?.station) ways.set(`${sectionKey} ${origin.station.join('/')}`, { sectionKey, path: origin.station })
  // From the back, so that earlier places stay true.
  const ordered = [...ways.values()].sort((one, other) => comparePaths(other.path, one.path))
  for (const { sectionKey, path } of ordered) {
    const list = at(score, sectionKey, path.slice(0, -1))
    if (Array.isArray(list)) list.splice(Number(path.at(-1)), 1)
    const section = score.sections.find((one) => one.key === sectionKey)
    if (section && 'groups' in section) section.groups = section.groups.filter((group) => group.length)
  }
}

const comparePaths = (one: Path, other: Path): number => {
  for (let index = 0; index < Math.max(one.length, other.length); index++) {
    const difference = Number(one[index] ?? 0) - Number(other[index] ?? 0)
    if (difference) return difference
  }
  return 0
}

/** Moves a station (or row) before or behind its neighbour. @returns the way to it now, or null where it stays. */
export function shiftMove(score: Score, segment: Segment, by: number): Path | null {
  const path = segment.origin?.station
  const from = Number(path?.at(-1))
  const list = path && at(score, segment.sectionKey, path.slice(0, -1))
  if (!Array.isArray(list) || !path || from + by < 0 || from + by >= list.length) return null
  const [moved] = list.splice(from, 1) as unknown[]
  list.splice(from + by, 0, moved)
  if (path[0] === 'groups') {
    const remarks = (list as Station[]).find((one) => one.above.length || one.beside)
    const kept = { above: remarks?.above ?? [], beside: remarks?.beside ?? '' }
    ;(list as Station[]).forEach((one, index) => Object.assign(one, index ? { above: [], beside: '' } : kept))
  }
  return [...path.slice(0, -1), from + by]
}
