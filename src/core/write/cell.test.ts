import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readIntervalTable } from '../read/intervalTable'
import { expand } from '../expand/expand'
import { guarded, unguarded } from './cell'
import { writeIntervalTable } from './intervalTable'

describe('a cell that begins a formula', () => {
  it('never begins with a letter that a spreadsheet acts on, and comes back as it was', () => {
    const anyCell = fc.oneof(
      fc.string(),
      fc.tuple(fc.constantFrom('=', '+', '-', '@', "'=", "''-", '\t'), fc.string()).map((two) => two.join('')),
    )
    fc.assert(
      fc.property(anyCell, (cell) => {
        expect(guarded(cell)).not.toMatch(/^[=+\-@\t\r]/)
        expect(unguarded(guarded(cell))).toBe(cell)
      }),
    )
  })
  it('goes through a table and back', () => {
    const label = '=HYPERLINK("x")'
    const table = `section,round,kind,label,side,seconds\nMain,1,work,"'=HYPERLINK(""x"")",,20\n`
    const { segments } = expand(readIntervalTable(table, 'x'))
    expect(segments[0]?.label).toBe(label)
    expect(writeIntervalTable(segments)).toContain(`"'=HYPERLINK(""x"")"`)
  })
})
