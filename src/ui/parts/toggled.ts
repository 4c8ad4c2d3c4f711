/** A copy of the set without the one that was in it, or with the one that was not. */
export function toggled<T>(all: ReadonlySet<T>, one: T): Set<T> {
  const next = new Set(all)
  if (!next.delete(one)) next.add(one)
  return next
}
