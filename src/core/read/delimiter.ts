// What divides the cells of a table: a comma, or what spreadsheets of other countries write in its place.

/** By the header, which has no such mark within its names. */
export function delimiterOf(text: string): ',' | ';' | '\t' {
  const header = /[^\r\n]*/.exec(text)?.[0] ?? ''
  const times = (mark: string): number => header.split(mark).length
  if (times(';') > times(',')) return ';'
  return times('\t') > times(',') ? '\t' : ','
}
