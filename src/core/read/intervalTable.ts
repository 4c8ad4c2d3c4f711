// Reads the interval table (CSV, RFC 4180) into a score of free lists. Every complaint names its line and column.
import { parse } from 'csv-parse/sync'
import { Problem } from '../problem'
import { newSection, type SectionOf } from '../score/formats'
import type { ListRow } from '../score/formats/row'
import { SIDES, type Side } from '../score/postures'
import { emptyScore, freshKey, type Score } from '../score/score'
import { KINDS, type Kind } from '../score/segment'
import { MOST_SEGMENTS } from '../expand/expand'

export const TABLE_HEADER = ['section', 'round', 'kind', 'label', 'side', 'seconds'] as const
/** A seventh column that may be there: `yes` where the length is a guess. */
export const ESTIMATED = 'estimated'

interface RawRecord {
  record: string[]
  info: { lines: number }
}

/**
 * @param text the whole file, UTF-8, with header.
 * @param title the workout's title, usually the file's name.
 * @throws Problem `bad-header`, `bad-cell`, `empty-plan` or `too-many`, with the line as its place.
 */
export function readIntervalTable(text: string, title: string): Score {
  const [header, ...rows] = records(text)
  const columns = checkHeader(header?.record ?? [])
  if (!rows.length) throw new Problem('empty-plan', 'The table has a header but no rows.', 'line 2')
  if (rows.length > MOST_SEGMENTS)
    throw new Problem(
      'too-many',
      `The table has ${rows.length} rows; ${MOST_SEGMENTS} is the most.`,
      `line ${MOST_SEGMENTS + 2}`,
    )

  const sections: SectionOf<'list'>[] = []
  for (const { record, info } of rows) {
    const { section, row } = readRow(record, info.lines, columns)
    const open = sections.at(-1)
    if (open && open.name === section) open.rows.push(row)
    else
      sections.push({
        ...newSection(
          'list',
          freshKey(
            section,
            sections.map((one) => one.key),
          ),
          section,
        ),
        rows: [row],
      })
  }
  return { ...emptyScore(title), sections }
}

function records(text: string): RawRecord[] {
  try {
    return parse(text, {
      bom: true,
      info: true,
      relax_column_count: true,
      skip_empty_lines: true,
      trim: true,
    }) as unknown as RawRecord[]
  } catch (error) {
    const line = (error as { lines?: number }).lines
    throw new Problem(
      'bad-cell',
      'The quoting is broken: a quote is opened and not closed, or stands inside a bare cell.',
      line ? `line ${line}` : null,
    )
  }
}

/** @returns the number of columns. */
function checkHeader(found: string[]): number {
  const typed = found.map((cell) => cell.toLowerCase()).join()
  if (typed === TABLE_HEADER.join() || typed === [...TABLE_HEADER, ESTIMATED].join()) return found.length
  throw new Problem(
    'bad-header',
    `Found the header "${found.join(',').slice(0, 120)}", expected "${TABLE_HEADER.join(',')}".`,
    'line 1',
  )
}

function readRow(record: string[], line: number, columns: number): { section: string; row: ListRow } {
  const bad = (column: string, found: string, expected: string): Problem =>
    new Problem('bad-cell', `Found "${found.slice(0, 60)}" in ${column}, expected ${expected}.`, `line ${line}`)
  if (record.length !== columns)
    throw new Problem('bad-cell', `Found ${record.length} cells, expected ${columns}.`, `line ${line}`)
  const [section = '', round = '', kind = '', label = '', side = '', seconds = '', estimated = ''] = record

  if (!KINDS.includes(kind as Kind)) throw bad('kind', kind, KINDS.join(', '))
  if (side && !SIDES.includes(side as Side)) throw bad('side', side, `nothing, ${SIDES.join(', ')}`)
  if (section.length > 300 || label.length > 300)
    throw bad(section.length > 300 ? 'section' : 'label', section.length > 300 ? section : label, '300 letters at most')
  if (round && !(/^\d+$/.test(round) && Number(round) >= 1 && Number(round) <= 10_000))
    throw bad('round', round, 'a whole number from 1 to 10000, or nothing')
  if (estimated && estimated !== 'yes') throw bad(ESTIMATED, estimated, 'yes, or nothing')
  return {
    section,
    row: {
      kind: kind as Kind,
      label,
      side: (side || null) as Side | null,
      round: round ? Number(round) : null,
      durationMs: readSeconds(seconds, kind as Kind, bad),
      estimated: estimated === 'yes' && kind !== 'talk',
      set: null,
      reps: null,
      posture: null,
      effort: null,
      above: [],
      beside: '',
    },
  }
}

function readSeconds(
  text: string,
  kind: Kind,
  bad: (column: string, found: string, expected: string) => Problem,
): number | null {
  if (!text && kind === 'talk') return null
  const seconds = Number(text)
  if (!/^\d+(\.\d+)?$/.test(text) || seconds > 86_400)
    throw bad('seconds', text, kind === 'talk' ? 'a number from 0 to 86400, or nothing' : 'a number from 0 to 86400')
  return Math.round(seconds * 1000)
}
