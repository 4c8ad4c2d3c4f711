// Brings two changes of one document together, each made from the same form of it. Plain JSON only; of order in lists
// that both changed, that of the first.

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Whether two pieces of JSON say the same, in whatever order their fields stand. */
export function sameJson(one: unknown, other: unknown): boolean {
  if (one === other) return true
  if (Array.isArray(one) && Array.isArray(other))
    return one.length === other.length && one.every((value, at) => sameJson(value, other[at]))
  if (!isRecord(one) || !isRecord(other)) return false
  return [...new Set([...Object.keys(one), ...Object.keys(other)])].every((key) => sameJson(one[key], other[key]))
}

/** Fields by which an entry of a list is the same entry after it was changed. */
const NAMED_BY = ['id', 'key', 'hash', 'footage', 'atMs', 'segmentId'] as const

function nameOf(entry: unknown): string {
  if (!isRecord(entry)) return JSON.stringify(entry)
  if (typeof entry.id === 'string') return entry.id
  const named = NAMED_BY.flatMap((field) => (entry[field] === undefined ? [] : [field, entry[field]]))
  return JSON.stringify(named.length ? named : entry)
}

/**
 * @param base what both were made from.
 * @param ours what stays where both changed the same field.
 * @returns ours and theirs in one: every field, and every entry of a list, that only one of them changed is as that one
 * left it.
 */
export function mergeThree<T>(base: T, ours: T, theirs: T): T {
  return merged(base, ours, theirs) as T
}

function merged(base: unknown, ours: unknown, theirs: unknown): unknown {
  if (sameJson(base, ours)) return theirs
  if (sameJson(base, theirs) || sameJson(ours, theirs)) return ours
  if (isRecord(ours) && isRecord(theirs)) return mergedRecords(isRecord(base) ? base : {}, ours, theirs)
  if (Array.isArray(ours) && Array.isArray(theirs)) return mergedLists(Array.isArray(base) ? base : [], ours, theirs)
  return ours
}

function mergedRecords(
  base: Record<string, unknown>,
  ours: Record<string, unknown>,
  theirs: Record<string, unknown>,
): Record<string, unknown> {
  const keys = new Set([...Object.keys(ours), ...Object.keys(theirs)])
  return Object.fromEntries(
    [...keys].flatMap((key) => {
      const value = merged(base[key], ours[key], theirs[key])
      return value === undefined ? [] : [[key, value]]
    }),
  )
}

function mergedLists(base: readonly unknown[], ours: readonly unknown[], theirs: readonly unknown[]): unknown[] {
  const [was, mine, yours] = [base, ours, theirs].map((list) => new Map(list.map((entry) => [nameOf(entry), entry])))
  if (!was || !mine || !yours || mine.size !== ours.length || yours.size !== theirs.length) return [...ours]
  const kept = [...mine].flatMap(([name, entry]) => {
    if (!was.has(name)) return [yours.has(name) ? merged(undefined, entry, yours.get(name)) : entry]
    // What they took out stays out, unless it was changed here.
    if (!yours.has(name)) return sameJson(was.get(name), entry) ? [] : [entry]
    return [merged(was.get(name), entry, yours.get(name))]
  })
  const added = [...yours].flatMap(([name, entry]) => {
    if (mine.has(name)) return []
    return !was.has(name) || !sameJson(was.get(name), entry) ? [entry] : []
  })
  return [...kept, ...added]
}
