// Keys of sections that the text does not name: a section that is the same as before keeps the key it had, so that
// stitches stay tied when a name is typed over.
import type { Section } from '../score/formats'
import type { Score } from '../score/score'
import type { ShorthandReading } from './read'

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
  const rekeyed = (key: string): string => given.get(key) ?? key
  return {
    ...reading,
    score: {
      ...reading.score,
      sections: reading.score.sections.map((section) => ({ ...section, key: rekeyed(section.key) })),
    },
    spans: reading.spans.map((span) => ({ ...span, sectionKey: rekeyed(span.sectionKey) })),
  }
}
