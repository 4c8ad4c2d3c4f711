// Keys of sections, stations and rows that the text does not name: what is the same as before keeps the key it had, so
// that stitches stay tied when a name is typed over or a move is put in between.
import { labelledIn, type Section } from '../score/formats'
import type { Score } from '../score/score'
import type { ShorthandReading } from './reading'

/** @param keyed keys that the text names itself; those stay. */
export function keepKeys(reading: ShorthandReading, keyed: ReadonlySet<string>, previous: Score): ShorthandReading {
  const free = previous.sections.filter((section) => !keyed.has(section.key))
  const taken = new Set(keyed)
  const given = new Map<string, string>()
  const open = reading.score.sections.filter((section) => !keyed.has(section.key))
  const adopt = (section: Section, found: Section | undefined): void => {
    if (!found) return
    free.splice(free.indexOf(found), 1)
    given.set(section.key, found.key)
    taken.add(found.key)
  }
  for (const section of open)
    adopt(
      section,
      free.find((one) => one.name === section.name && one.format === section.format),
    )
  for (const section of open)
    if (!given.has(section.key))
      adopt(
        section,
        free.find((one) => one.name === section.name),
      )
  for (const section of open) {
    if (given.has(section.key)) continue
    const place = reading.score.sections.indexOf(section)
    adopt(
      section,
      free.find((one) => one.format === section.format && previous.sections.indexOf(one) === place),
    )
  }
  for (const section of open) {
    if (given.has(section.key)) continue
    // A new section must not take a key that an older one now bears.
    let key = section.key
    for (let number = 2; taken.has(key); number++) key = `${section.key.slice(0, 74)}-${number}`
    given.set(section.key, key)
    taken.add(key)
  }
  const before = new Map(previous.sections.map((section) => [section.key, section]))
  const rekeyed = (key: string): string => given.get(key) ?? key
  return {
    ...reading,
    score: {
      ...reading.score,
      sections: reading.score.sections.map((section) => {
        const kept = { ...section, key: rekeyed(section.key) }
        keepPlaces(kept, before.get(kept.key))
        return kept
      }),
    },
    spans: reading.spans.map((span) => ({ ...span, sectionKey: rekeyed(span.sectionKey) })),
  }
}

/** Gives stations, or rows, the keys of those that they were: by label first, then by their place between two such. */
function keepPlaces(section: Section, before: Section | undefined): void {
  if (!before) return
  const held = labelledIn(section),
    old = labelledIn(before)
  const named = new Set(held.map((one) => one.key).filter(Boolean))
  const free = new Set(old.flatMap((one, index) => (named.has(one.key) ? [] : [index])))
  const byLabel = new Map<string, number[]>()
  for (const index of [...free].reverse()) {
    const label = old[index]?.label ?? ''
    byLabel.set(label, [...(byLabel.get(label) ?? []), index])
  }
  /** Which of the old each one is, where that is known. */
  const was = held.map((one) => (one.key ? old.findIndex(({ key }) => key === one.key) : byLabel.get(one.label)?.pop()))
  for (const index of was) if (index !== undefined) free.delete(index)
  for (let from = 0; from < held.length; from++) {
    if (was[from] !== undefined) continue
    let to = from
    while (to < held.length && was[to] === undefined) to++
    const left = was[from - 1] ?? -1,
      right = was[to] ?? old.length
    const between = [...free].filter((index) => index > left && index < right).sort((one, other) => one - other)
    if (between.length === to - from) between.forEach((index, at) => (was[from + at] = index))
    from = to
  }
  held.forEach((one, at) => {
    const key = old[was[at] ?? -1]?.key
    if (!one.key && key) one.key = key
  })
}
