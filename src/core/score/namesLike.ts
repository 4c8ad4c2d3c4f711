// Names that a few typed letters may be the beginning of.

const MOST = 7

/** Those that begin with what is typed, then those of which a later word does; in the order given, none for nothing. */
export function namesLike(typed: string, names: readonly string[]): string[] {
  const wanted = typed.trim().toLowerCase()
  if (!wanted) return []
  const lower = names.map((name) => name.toLowerCase())
  // The name itself needs no offer.
  if (lower.includes(wanted)) return []
  const first = names.filter((_, at) => lower[at]?.startsWith(wanted))
  const later = names.filter((_, at) => !lower[at]?.startsWith(wanted) && lower[at]?.includes(` ${wanted}`))
  return [...first, ...later].slice(0, MOST)
}
