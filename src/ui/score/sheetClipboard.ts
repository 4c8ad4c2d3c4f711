// Rows of the running sheet to and from a spreadsheet.
import { readIntervalTable, TABLE_HEADER } from '@/core/read/intervalTable'
import { labelledIn } from '@/core/score/formats'
import { FreshKeys, type Score } from '@/core/score/score'
import type { Segment } from '@/core/score/segment'
import { formatLength } from '@/core/time/clock'
import { countersOf, nameOf } from '@/core/words/en/names'
import { writeIntervalTable } from '@/core/write/intervalTable'

/** As a table for a spreadsheet, and as lines for a text. */
export function copyInto(clipboard: DataTransfer, segments: readonly Segment[]): void {
  const cells = segments.map(({ section, round, kind, label, side, durationMs }) =>
    [section, round ?? '', kind, label, side ?? '', durationMs / 1000]
      .map((cell) => String(cell).replace(/[\t\r\n]/g, ' '))
      .join('\t'),
  )
  const items = segments.map(
    (segment) =>
      `<li>${escapeHtml([nameOf(segment), formatLength(segment.durationMs), ...countersOf(segment)].join(', '))}</li>`,
  )
  clipboard.setData('text/plain', [TABLE_HEADER.join('\t'), ...cells].join('\n'))
  clipboard.setData('text/csv', writeIntervalTable(segments))
  clipboard.setData('text/html', `<ol>${items.join('')}</ol>`)
}

const escapeHtml = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;')

/** Spreadsheets put tabs between cells; the header may be left out. @throws Problem of the table. */
export function readPastedRows(text: string): Score {
  const lines = text
    .replace(/\r\n?/g, '\n')
    .split('\n')
    .filter((line) => line.trim())
  const tabbed = lines[0]?.includes('\t') ?? false
  const quoted = (cell: string): string => (/[",]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)
  const table = tabbed ? lines.map((line) => line.split('\t').map(quoted).join(',')) : lines
  const headed = table[0]?.toLowerCase().startsWith('section,') ?? false
  return readIntervalTable([...(headed ? [] : [TABLE_HEADER.join(',')]), ...table].join('\n'), '')
}

export const rowsIn = ({ sections }: Score): number =>
  sections.reduce((sum, section) => sum + labelledIn(section).length, 0)

/** Puts pasted sections behind the one that is selected, or at the end. */
export function putSections(draft: Score, pasted: Score, afterKey: string | undefined): void {
  const after = draft.sections.findIndex((section) => section.key === afterKey)
  const keys = new FreshKeys(draft.sections.map((section) => section.key))
  const fresh = pasted.sections.map((section) => ({ ...section, key: keys.take(section.name) }))
  draft.sections.splice(after < 0 ? draft.sections.length : after + 1, 0, ...fresh)
}
