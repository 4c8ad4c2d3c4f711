// Changes one document into another in place, touching only what differs: an edit typed as a whole text becomes a small
// undoable command, and what did not change keeps its identity.

type Tree = Record<string | number, unknown>
const isTree = (value: unknown): value is Tree => typeof value === 'object' && value !== null

/** @param from a draft, or any plain document; afterwards equal to `to`. */
export function mergeInto(from: unknown, to: unknown): void {
  if (!isTree(from) || !isTree(to)) return
  if (Array.isArray(from) && Array.isArray(to)) return mergeArrays(from, to)
  for (const name of Object.keys(from)) if (!(name in to)) delete from[name]
  for (const [name, value] of Object.entries(to)) mergeAt(from, name, value)
}

function mergeAt(from: object, name: string | number, value: unknown): void {
  const old: unknown = Reflect.get(from, name)
  if (isTree(old) && isTree(value) && Array.isArray(old) === Array.isArray(value)) mergeInto(old, value)
  else if (!Object.is(old, value)) Reflect.set(from, name, value)
}

/** Lists that grew or shrank keep their common head and tail as they are. */
function mergeArrays(from: unknown[], to: unknown[]): void {
  if (from.length !== to.length) {
    const same = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other)
    let head = 0
    while (head < Math.min(from.length, to.length) && same(from[head], to[head])) head++
    let tail = 0
    while (
      tail < Math.min(from.length, to.length) - head &&
      same(from[from.length - 1 - tail], to[to.length - 1 - tail])
    )
      tail++
    from.splice(head, from.length - head - tail, ...to.slice(head, to.length - tail))
  }
  to.forEach((value, index) => mergeAt(from, index, value))
}
