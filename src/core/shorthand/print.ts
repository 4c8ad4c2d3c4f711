// Score to shorthand, the twin of read.ts: reading what is printed gives the same score, remarks and all.
import { formatOf, type Section } from '../score/formats'
import { valueAt, type Field } from '../score/formats/fields'
import { keysToSay } from '../score/formats/keys'
import type { ListRow } from '../score/formats/row'
import type { Station } from '../score/formats/station'
import type { Move } from '../score/move'
import { USUAL_NEEDS, type Needs } from '../score/needs'
import { freshKey, type Score } from '../score/score'
import { COUNTED } from '../score/vocabulary'
import { moveSettings } from './plain'
import { quote, spaced, writeLength, writeSetting } from './settings'
import { writeGaps, writeSwap, writeWeight } from './station'
import { MOVE_FIELDS, ROW_FIELDS, SCORE_FIELDS, STATION_FIELDS } from './terms'

const WIDEST = 96

export function printShorthand(score: Score): string {
  const lines = [...score.above, printTitle(score.title), ...printPlain(score)]
  const keys: string[] = []
  for (const section of score.sections) {
    lines.push(...printSection(section, keys))
    keys.push(section.key)
  }
  return `${[...lines, ...score.below].join('\n')}\n`
}

const BARE = /^\p{L}[\p{L}\p{M}\p{N}'’./&!?*%-]*(?: [\p{L}\p{N}][\p{L}\p{M}\p{N}'’./&!?*%-]*)*$/u

/** A name as it stands, or in quotes where it could be read as something else. */
const writeName = (name: string): string => (BARE.test(name) && !/^title(?: |$)/.test(name) ? name : quote(name))

const printTitle = (title: string): string =>
  title && title === title.trim() && !/^"|[\r\n\u2028\u2029]/.test(title) ? `title ${title}` : `title ${quote(title)}`

/** Lines that set something for the whole workout; none where all is as usual. */
function printPlain(score: Score): string[] {
  const values: Record<string, unknown> = {
    promiseMs: score.promiseMs,
    promiseOf: score.promiseOf,
    demos: score.demos.place,
    eachMs: score.demos.eachMs,
    count: score.count,
    countOf: score.countOf,
    caution: score.caution,
    series: score.series.name,
    next: score.series.next,
    ...score.readings,
  }
  const words = COUNTED.flatMap((one) => {
    const pair = score.vocabulary[one]
    return pair ? [`${one} ${quote(pair.one)} ${quote(pair.many)}`] : []
  })
  const needs = (Object.keys(USUAL_NEEDS) as (keyof Needs)[]).flatMap((need) =>
    score.needs[need] === undefined ? [] : [`${spaced(need)} ${score.needs[need]}`],
  )
  const line = (head: string, settings: readonly string[]): string[] =>
    settings.length ? [`${head}: ${settings.join(', ')}`] : []
  return [
    ...line('score', settingsOf(SCORE_FIELDS, values)),
    ...line('words', words),
    ...line('needs', needs),
    ...score.moves.map(printMove),
    ...score.dismissed.map(({ finding, reason }) => `dismissed ${quote(finding)}: reason ${quote(reason)}`),
  ]
}

/** The settings of a thing with fields, all that are not as nothing typed would have them. */
const settingsOf = (fields: readonly Field[], of: object, ranges: Section['ranges'] = {}): string[] =>
  fields.flatMap((field) => writeSetting(field, valueAt(of, field.field), ranges[field.field]) ?? [])

function printMove(move: Move): string {
  const settings = [...settingsOf(MOVE_FIELDS, move), ...moveSettings(move)]
  return `move ${quote(move.name)}:${settings.length ? ` ${settings.join(', ')}` : ''}`
}

/** @param keys keys of the sections before, which decide the key that a name alone would give. */
function printSection(section: Section, keys: readonly string[]): string[] {
  const { head, fields } = formatOf(section).notation
  const settings = [...settingsOf(fields, section, section.ranges), ...writeGaps(section)]
  const name = section.name ? ` ${writeName(section.name)}` : ''
  const key = section.key === freshKey(section.name, keys) ? '' : ` @${section.key}`
  const first = `${head}${name}${key}:${settings.length ? ` ${settings.join(', ')}` : ''}${section.beside ? `  ${section.beside}` : ''}`
  return [...section.above, first, ...entryLines(entriesOf(section))]
}

interface Entry {
  text: string
  above: readonly string[]
  beside: string
}

function entriesOf(section: Section): Entry[] {
  const said = keysToSay(section)
  let index = 0
  const station = (one: Station): string => printStation(one, said[index++] ?? null)
  const entry = (text: string, { above, beside }: Pick<Station, 'above' | 'beside'>): Entry => ({ text, above, beside })
  if ('rows' in section) return section.rows.map((row, at) => entry(printRow(row, said[at] ?? null), row))
  if ('groups' in section)
    return section.groups.map((group) => entry(group.map(station).join(' + '), group[0] ?? { above: [], beside: '' }))
  if (!('stations' in section)) return []
  const entries: Entry[] = []
  for (const one of section.stations) {
    const text = station(one)
    const before = one.joined ? entries.at(-1) : undefined
    if (before) Object.assign(before, { text: `${before.text} + ${text}`, beside: one.beside })
    else entries.push(entry(text, one))
  }
  return entries
}

/** As many entries on a line as fit; remarks end a line. */
function entryLines(entries: readonly Entry[]): string[] {
  const lines: string[] = []
  let open = ''
  const close = (): void => {
    if (open) lines.push(`  ${open}`)
    open = ''
  }
  for (const { text, above, beside } of entries) {
    if (above.length || open.length + text.length > WIDEST) close()
    lines.push(...above)
    open = open ? `${open}; ${text}` : text
    if (!beside) continue
    open += `  ${beside}`
    close()
  }
  close()
  return lines
}

const inBrackets = (settings: readonly string[]): string => (settings.length ? ` (${settings.join(', ')})` : '')

/** @param key its key, where its place does not tell it. */
function printStation(station: Station, key: string | null): string {
  const swaps = station.swaps.flatMap((swap) => writeSwap(swap, writeName))
  const settings = [
    ...sayKey(key),
    ...settingsOf(STATION_FIELDS, station, station.ranges),
    ...writeWeight(station),
    ...swaps,
  ]
  return printLabel(station.label, station.reps) + inBrackets(settings)
}

function printRow(row: ListRow, key: string | null): string {
  const length = `${row.estimated ? 'about ' : ''}${row.durationMs === null ? 'open' : writeLength(row.durationMs)} ${row.kind}`
  return printLabel(row.label, row.reps) + inBrackets([length, ...sayKey(key), ...settingsOf(ROW_FIELDS, row)])
}

const sayKey = (key: string | null): string[] => (key === null ? [] : [`key ${key}`])

const printLabel = (label: string, reps: number | null): string =>
  (reps === null ? '' : `${reps} `) + (label === '' ? '-' : writeName(label))
