// A section as a free list, and a free list recognised back into the format that gives exactly the same intervals.
import { expandSection, FORMAT_NAMES, formatNamed, type FormatName, type Section, type SectionOf } from './formats'
import type { Around } from './formats/format'
import type { ListRow } from './formats/row'
import { Rows } from './formats/rows'
import type { Segment } from './segment'

const rowOf = (segment: Segment, around: Around): ListRow => {
  const move = segment.kind === 'work' ? around.cast(segment.label) : null
  return {
    kind: segment.kind,
    label: segment.label.slice(0, 300),
    side: segment.side,
    round: segment.round,
    set: segment.set,
    durationMs: segment.kind === 'talk' && !segment.durationMs ? null : segment.durationMs,
    estimated: segment.estimated && segment.kind !== 'talk',
    reps: segment.reps,
    posture: move && move.posture !== segment.posture ? segment.posture : null,
    effort: move && move.effort !== segment.effort ? segment.effort : null,
    above: [],
    beside: '',
  }
}

/** The same intervals, one by one; key, name and remarks stay. */
export function toList(section: Section, around: Around): SectionOf<'list'> {
  if (section.format === 'list') return section
  const { key, name, above, beside, format } = section
  return {
    format: 'list',
    key,
    name,
    above,
    beside,
    from: format,
    rows: expandSection(section, around).map((segment) => rowOf(segment, around)),
  }
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
export function recognise(list: SectionOf<'list'>, around: Around): Section | null {
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
      if (
        got.length === wanted.length &&
        got.every((segment, index) => telling(rowOf(segment, around)) === wanted[index])
      )
        return section
    }
  }
  return null
}
