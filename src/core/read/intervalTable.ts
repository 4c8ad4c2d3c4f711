// Reads the interval table (CSV, RFC 4180) into a score of free lists. Every complaint names its line and column.
import { parse } from 'csv-parse/sync'
import type { CellWanted } from '../facts'
import { MOST_SECTIONS, MOST_SEGMENTS } from '../limits'
import { Problem } from '../problem'
import { delimiterOf } from './delimiter'
import { unguarded } from '../write/cell'
import { newList } from '../score/formats'
import { withKeys } from '../score/formats/keys'
import type { FreeList } from '../score/formats/list'
import { newRow, type ListRow } from '../score/formats/row'
import { SIDES, type Side } from '../score/postures'
import { emptyScore, FreshKeys, type Score } from '../score/score'
import { KINDS, type Kind } from '../score/segment'
import { clipped } from '../text'

export const TABLE_HEADER = ['section', 'round', 'kind', 'label', 'side', 'seconds'] as const
/** A seventh column that may be there: `yes` where the length is a guess. */
export const ESTIMATED = 'estimated'

const MOST_LETTERS = 300
const MOST_SECONDS = 86_400
const MOST_ROUND = 10_000

interface RawRecord {
  record: string[]
  info: { lines: number }
}

/**
 * @param text the whole file, UTF-8, with header.
 * @param title the workout's title, usually the file's name.
 * @throws Problem with the line as its place.
 */
export function readIntervalTable(text: string, title: string): Score {
  const [header, ...rows] = records(text)
  const columns = checkHeader(header?.record ?? [])
  if (!rows.length) throw new Problem({ code: 'empty-plan', why: 'no-rows' }, 'line 2')
  if (rows.length > MOST_SEGMENTS)
    throw new Problem(
      { code: 'too-many', what: 'rows', most: MOST_SEGMENTS, found: rows.length },
      `line ${MOST_SEGMENTS + 2}`,
    )
  const keys = new FreshKeys()
  const sections: FreeList[] = []
  for (const { record, info } of rows) {
    const { section, row } = readRow(record, info.lines, columns)
    const open = sections.at(-1)
    if (open && open.name === section) open.rows.push(row)
    else if (sections.length < MOST_SECTIONS) sections.push(newList(keys.take(section), section, [row]))
    else
      throw new Problem({ code: 'too-many', what: 'sections', most: MOST_SECTIONS, found: null }, `line ${info.lines}`)
  }
  return { ...emptyScore(title), sections: sections.map(withKeys) }
}

function records(text: string): RawRecord[] {
  try {
    // The types of the reader know nothing of `info: true`, which wraps each record.
    return parse(text, {
      bom: true,
      delimiter: delimiterOf(text),
      info: true,
      relax_column_count: true,
      skip_empty_lines: true,
      trim: true,
    }) as object[] as RawRecord[]
  } catch (error) {
    const line = (error as { lines?: number }).lines
    throw new Problem({ code: 'broken-quote' }, line ? `line ${line}` : null)
  }
}

/** @returns the number of columns. */
function checkHeader(found: string[]): number {
  const typed = found.map((cell) => cell.toLowerCase()).join()
  if (typed === TABLE_HEADER.join() || typed === [...TABLE_HEADER, ESTIMATED].join()) return found.length
  throw new Problem(
    { code: 'bad-header', found: clipped(found.join(','), 120), expected: TABLE_HEADER.join(',') },
    'line 1',
  )
}

/** A cell that is not as it has to be. */
type Bad = (column: string, found: string, expected: CellWanted) => Problem

function readRow(record: string[], line: number, columns: number): { section: string; row: ListRow } {
  const bad: Bad = (column, found, expected) =>
    new Problem({ code: 'bad-cell', column, found: clipped(found, 60), expected }, `line ${line}`)
  if (record.length !== columns)
    throw new Problem({ code: 'wrong-cells', found: record.length, expected: columns }, `line ${line}`)
  const [section = '', round = '', kind = '', label = '', side = '', seconds = '', estimated = ''] =
    record.map(unguarded)
  if (!isKind(kind)) throw bad('kind', kind, { code: 'one-of', options: KINDS, orNothing: false })
  if (!isSide(side)) throw bad('side', side, { code: 'one-of', options: SIDES, orNothing: true })
  for (const [column, cell] of Object.entries({ section, label }))
    if (cell.length > MOST_LETTERS) throw bad(column, cell, { code: 'letters', most: MOST_LETTERS })
  if (estimated && estimated !== 'yes') throw bad(ESTIMATED, estimated, { code: 'yes' })
  const row = newRow({
    kind,
    label,
    side: side || null,
    round: readRound(round, bad),
    durationMs: readSeconds(seconds, kind, bad),
    estimated: estimated === 'yes' && kind !== 'talk',
  })
  return { section, row }
}

const isKind = (cell: string): cell is Kind => (KINDS as readonly string[]).includes(cell)
const isSide = (cell: string): cell is Side | '' => cell === '' || (SIDES as readonly string[]).includes(cell)

function readRound(text: string, bad: Bad): number | null {
  if (!text) return null
  const round = Number(text)
  if (!/^\d+$/.test(text) || round < 1 || round > MOST_ROUND)
    throw bad('round', text, { code: 'whole', low: 1, high: MOST_ROUND })
  return round
}

function readSeconds(text: string, kind: Kind, bad: Bad): number | null {
  if (!text && kind === 'talk') return null
  // Where cells are divided by semicolons, decimals are written with a comma.
  const seconds = Number(text.replace(',', '.'))
  if (!/^\d+([.,]\d+)?$/.test(text) || seconds > MOST_SECONDS)
    throw bad('seconds', text, { code: 'seconds', most: MOST_SECONDS, orNothing: kind === 'talk' })
  return Math.round(seconds * 1000)
}
