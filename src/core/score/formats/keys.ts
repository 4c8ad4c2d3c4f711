// Keys of stations and rows: kept when others come, go or change places, so that a tie stays with its move. Where none
// was given yet, a station gets the first free `s1`, `s2` ... of its section, and a row says where it stands,
// `r2/s1/rest`.
import type { ListRow } from './row'
import type { Station } from './station'

interface Keyed {
  key: string
}
type Holder = { stations: Station[] } | { groups: Station[][] } | { rows: ListRow[] } | object

/** Everything of a section that has a key, in order: stations, those of its groups one after another, or rows. */
const heldBy = (section: Holder): readonly (Station | ListRow)[] =>
  'stations' in section
    ? section.stations
    : 'groups' in section
      ? section.groups.flat()
      : 'rows' in section
        ? section.rows
        : []

/** Every station, or row, has a key; whether each has one of its own is the schema's to see to. */
export const hasKeys = (section: object): boolean => heldBy(section).every(({ key }) => key !== '')

/** @returns the same section where nothing is missing, else a copy in which every key is given once. */
export function withKeys<T extends object>(section: T): T {
  const held = heldBy(section)
  const keys = keysFor(held)
  if (held.every((one, index) => one.key === keys[index])) return section
  let index = 0
  const keyed = <One extends Keyed>(one: One): One => ({ ...one, key: keys[index++] ?? one.key })
  if ('stations' in section) return { ...section, stations: (section.stations as Station[]).map(keyed) }
  if ('groups' in section)
    return { ...section, groups: (section.groups as Station[][]).map((group) => group.map(keyed)) }
  return 'rows' in section ? { ...section, rows: (section.rows as ListRow[]).map(keyed) } : section
}

/** The same in place, for drafts. */
export function giveKeys(section: object): void {
  const held = heldBy(section)
  const keys = keysFor(held)
  held.forEach((one, index) => {
    const key = keys[index]
    if (key !== undefined && one.key !== key) one.key = key
  })
}

/** The key of each: its own, where no earlier one bears it, else one that is free. */
export function keysFor(held: readonly (Station | ListRow)[]): string[] {
  const taken = new Set<string>()
  const own = held.map(({ key }) => {
    if (!key || taken.has(key)) return null
    taken.add(key)
    return key
  })
  const place = new Places()
  const free = new Free(taken)
  return held.map((one, index) => {
    const stem = 'kind' in one ? place.of(one) : null
    const kept = own[index]
    if (kept) return kept
    return stem === null ? free.station() : free.place(stem)
  })
}

/** Keys that nobody bears yet, each handed out once. */
class Free {
  private number = 1
  private readonly again = new Map<string, number>()
  constructor(private readonly taken: Set<string>) {}

  station(): string {
    while (this.taken.has(`s${this.number}`)) this.number++
    return this.take(`s${this.number}`)
  }

  /** The stem itself, or `stem-2`, `stem-3` ... */
  place(stem: string): string {
    let again = this.again.get(stem) ?? 1
    while (this.taken.has(again > 1 ? `${stem}-${again}` : stem)) again++
    this.again.set(stem, again + 1)
    return this.take(again > 1 ? `${stem}-${again}` : stem)
  }

  private take(key: string): string {
    this.taken.add(key)
    return key
  }
}

/** Where a row of a list stands among those of its set and round, e.g. `g1/r2/s3/work`. */
class Places {
  private readonly works = new Map<string, number>()

  of({ kind, set, round }: Pick<ListRow, 'kind' | 'set' | 'round'>): string {
    const group = (set === null ? '' : `g${set}/`) + (round === null ? '' : `r${round}/`)
    if (kind === 'work') this.works.set(group, (this.works.get(group) ?? 0) + 1)
    const station = kind === 'work' || kind === 'rest' ? this.works.get(group) : undefined
    return `${group}${station === undefined ? '' : `s${station}/`}${kind}`
  }
}

/** So often at most a text is tried with one key more; beyond it every key is written out. */
const MOST_TRIES = 40

/**
 * Which keys a text has to say because reading it would give others. Few as a rule: those of what was inserted or
 * moved.
 * @returns for each of the section's stations or rows its key, or null where it follows by itself.
 */
export function keysToSay(section: object): (string | null)[] {
  const held = heldBy(section)
  const said = new Set<number>()
  for (let tries = 0; tries <= MOST_TRIES; tries++) {
    const read = keysFor(held.map((one, index) => (said.has(index) ? one : { ...one, key: '' })))
    const first = read.findIndex((key, index) => key !== held[index]?.key)
    if (first < 0) return held.map((one, index) => (said.has(index) ? one.key : null))
    said.add(first)
  }
  return held.map(({ key }) => key)
}
