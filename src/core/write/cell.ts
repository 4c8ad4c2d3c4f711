// Cells of a table that a spreadsheet would take for a formula: guarded with an apostrophe when written, as is usual,
// and freed of it when read. What begins with apostrophes before such a letter gets one more, so that all come back.

const FORMULA = /^'*[=+\-@\t\r]/
const GUARDED = /^'+[=+\-@\t\r]/

export const guarded = (cell: string): string => (FORMULA.test(cell) ? `'${cell}` : cell)
export const unguarded = (cell: string): string => (GUARDED.test(cell) ? cell.slice(1) : cell)
