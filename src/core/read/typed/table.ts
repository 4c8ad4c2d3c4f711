// A table of moves with a column each for work and rest, drawn with bars or divided by commas: rewritten as lines that
// say the same.
const HEADER =
  /^\s*\|?\s*(?:move|exercise|station|what|name)s?\s*[|,;\t].*(?:work|on|time|seconds|length|duration|reps|sets)/i
const DIVIDER = /^\s*\|?[\s:|-]+\|?\s*$/
const CELL = /^\d+(?:[.,]\d+)?$/

/** @returns the lines with each row of a table as "Move: 40s, rest 20s"; the others as they stand. */
export function withoutTables(lines: readonly string[]): string[] {
  let columns: string[] | null = null
  return lines.map((line, index) => {
    if (HEADER.test(line) && hasRows(lines, index)) {
      columns = cellsOf(line)
      return ''
    }
    if (!columns) return line
    if (DIVIDER.test(line) && line.includes('-')) return ''
    const cells = cellsOf(line)
    if (cells.length !== columns.length) {
      columns = null
      return line
    }
    const [name = '', ...values] = cells
    const said = values.flatMap((value, at) => {
      const column = columns?.[at + 1]?.toLowerCase() ?? ''
      if (!value || value === '-') return []
      const length = CELL.test(value) && !/reps|sets/.test(column) ? `${value}s` : value
      if (/rest|off|pause/.test(column)) return `rest ${length}`
      if (/reps/.test(column)) return `${value.replace(/\s*reps?$/i, '')} reps`
      return /sets/.test(column) ? `${value.replace(/\s*sets?$/i, '')} sets` : length
    })
    return `- ${name}, ${said.join(', ')}`
  })
}

const cellsOf = (line: string): string[] => {
  const bare = line.trim().replace(/^\||\|$/g, '')
  const mark = bare.includes('|') ? '|' : bare.includes('\t') ? '\t' : bare.includes(';') ? ';' : ','
  return bare.split(mark).map((cell) => cell.trim())
}

/** A header is one only where a row of as many cells follows. */
function hasRows(lines: readonly string[], at: number): boolean {
  const wanted = cellsOf(lines[at] ?? '').length
  const next = lines.slice(at + 1, at + 4).find((line) => line.trim())
  return wanted > 1 && next !== undefined && cellsOf(next).length === wanted
}
