// Shorthand to score. Whatever is understood is taken; whatever is not is kept as a line that starts with `?`, and
// reported where it stands. No text, however broken, is refused or lost.
import { MOST_SECTIONS, MOST_SEGMENTS, MOST_STATIONS } from '../limits'
import { bareSection, FORMAT_NAMES, formatOf, notationOf, type FormatName, type Section } from '../score/formats'
import type { FreeList } from '../score/formats/list'
import type { Field } from '../score/formats/fields'
import { giveKeys } from '../score/formats/keys'
import { newRow, type ListRow } from '../score/formats/row'
import { newStation, type Station } from '../score/formats/station'
import { placeKey } from '../score/primitives'
import { emptyScore, FreshKeys, type Score } from '../score/score'
import { KINDS, type Kind } from '../score/segment'
import { parseLength } from '../time/clock'
import { takeApart, type MovePiece, type Piece } from './line'
import { keepKeys } from './keepKeys'
import { applyPlain } from './plain'
import type { ShorthandReading, SpanOfScore } from './reading'
import { complain, nearest, type Mend, type ShorthandProblem } from './problems'
import { exampleOf, quote, readSetting, spaced, unquote } from './settings'
import { takesGap, takesSwap, takesWeight } from './station'
import { PLAIN_HEADS, ROW_FIELDS, STATION_FIELDS, type PlainHead } from './terms'
import { clipped } from '../text'

const MOST_NAME = 300,
  MOST_REMARK = 1900

export const HEADS: ReadonlyMap<string, FormatName> = new Map(FORMAT_NAMES.map((name) => [notationOf(name).head, name]))
export const ALL_HEADS: readonly string[] = [...HEADS.keys(), ...PLAIN_HEADS]

/**
 * @param previous the score as it was, whose keys are kept where sections can be told to be the same; and its title
 * where the text has none.
 */
export function readShorthand(text: string, previous: Score | null = null): ShorthandReading {
  const reader = new Reader(previous?.title ?? '')
  // The line end after the last line starts no line of its own.
  for (const { 0: whole, 1: line = '', index } of text.matchAll(/([^\r\n]*)(?:\r\n|\r|\n|$)/g)) {
    if (whole || index === 0) reader.line(line, index)
  }
  const reading = reader.done()
  const kept = previous ? keepKeys(reading, reader.keyed, previous) : reading
  for (const section of kept.score.sections) giveKeys(section)
  return kept
}

class Reader {
  private readonly score: Score
  private readonly problems: ShorthandProblem[] = []
  private readonly spans: SpanOfScore[] = []
  private readonly keys = new FreshKeys()
  /** Keys that the text itself names. */
  readonly keyed = new Set<string>()
  private above: string[] = []
  private section: Section | null = null
  /** After a head that nobody knows, its moves are kept unread with it. */
  private lost = false

  constructor(title: string) {
    this.score = emptyScore(title)
  }

  done(): ShorthandReading {
    this.score.below = this.above
    return { score: this.score, problems: this.problems, spans: this.spans }
  }

  line(text: string, offset: number): void {
    if (!text.trim()) return void this.above.push('')
    const line = takeApart(text)
    for (const fault of line.faults) {
      const shown = fault.text.trim()
      const names = [line.header?.name, ...line.entries.flat().map(({ label }) => label)]
      const name = names.find((one) => one && fault.from > one.from && fault.to < one.to)
      if (name && shown) {
        this.wantsQuotes(name, shown, offset)
        continue
      }
      complain(this.problems, {
        code: 'unexpected',
        at: shifted(fault, offset, text.length),
        values: { found: clipped(shown, 40) },
      })
      if (shown) this.keepUnread(shown)
    }
    if (line.title) this.readTitle(line.title, offset)
    else if (line.unread) this.remark(line.unread.text)
    else if (line.header) return this.header(line.header, line.comment, text, offset)
    else if (line.entries.length) return this.entries(line.entries, line.comment, text, offset)
    if (line.comment) this.remark(line.comment.text)
  }

  /** A name with a mark in it: it is taken whole, and says how it is to be typed. */
  private wantsQuotes(name: Piece, found: string, offset: number): void {
    const insert = quote(name.text)
    complain(this.problems, {
      code: 'name-wants-quotes',
      at: shifted(name, offset),
      values: { found: clipped(found, 40), known: clipped(insert, 60) },
      mend: { ...shifted(name, offset), insert, label: insert },
    })
  }

  private remark(text: string): void {
    const mark = text.charAt(0)
    const inside = text.slice(1).replace(/[\r\n]/g, ' ')
    for (let from = 0; from === 0 || from < inside.length; from += MOST_REMARK)
      this.above.push(mark + inside.slice(from, from + MOST_REMARK))
  }

  private keepUnread(text: string): void {
    this.remark(`? ${text}`)
  }

  private readTitle(piece: Piece, offset: number): void {
    const typed = piece.text.slice('title'.length).trim()
    const title = typed.startsWith('"') ? (unquote(typed) ?? typed) : typed
    if (title.length > MOST_NAME)
      complain(this.problems, { code: 'too-long', at: shifted(piece, offset), values: { most: String(MOST_NAME) } })
    this.score.title = clipped(title, MOST_NAME)
    this.score.above.push(...this.above)
    this.above = []
  }

  private header(
    header: NonNullable<ReturnType<typeof takeApart>['header']>,
    comment: Piece | null,
    line: string,
    offset: number,
  ): void {
    const head = header.head.text.toLowerCase()
    if (isPlain(head)) {
      if (comment) this.remark(comment.text)
      const name = header.name ? this.nameOf(header.name, offset) : ''
      for (const unread of applyPlain(this.score, head, name, header.settings))
        this.unknownSetting(unread, [], offset, head)
      return
    }
    const format = HEADS.get(head)
    this.lost = !format || this.score.sections.length >= MOST_SECTIONS
    if (!format || this.lost) {
      const guess = format ? null : nearest(head, ALL_HEADS)
      const mend: Mend | null = guess ? { ...shifted(header.head, offset), insert: guess, label: guess } : null
      complain(this.problems, {
        code: format ? 'too-many' : 'unknown-head',
        at: shifted(header.head, offset),
        values: { found: header.head.text, most: String(MOST_SECTIONS) },
        mend,
      })
      this.section = null
      return this.keepUnread(line.trim())
    }
    const name = header.name ? this.nameOf(header.name, offset) : ''
    const section = bareSection(format, this.keyFor(header.key, name, offset), name)
    const { fields } = notationOf(format)
    for (const setting of header.settings) {
      if (takesGap(section, setting.text)) continue
      const read = readSetting(fields, setting.text)
      if (read) Object.assign(section, { [read.field]: read.value })
      else this.unknownSetting(setting, fields, offset, head)
      if (read?.range) section.ranges[read.field] = read.range
    }
    section.above = this.above
    section.beside = comment ? clipped(comment.text, MOST_REMARK) : ''
    this.above = []
    this.section = section
    this.score.sections.push(section)
    this.spans.push({ from: offset, to: offset + line.length, sectionKey: section.key, station: null })
  }

  private keyFor(typed: Piece | null, name: string, offset: number): string {
    const wanted = typed?.text.slice(1) ?? ''
    const good = /^[a-z0-9][a-z0-9-]{0,79}$/.test(wanted) && !this.keys.has(wanted)
    if (typed && !good)
      complain(this.problems, { code: 'bad-key', at: shifted(typed, offset), values: { found: typed.text } })
    if (!good) return this.keys.take(name)
    this.keyed.add(wanted)
    this.keys.add(wanted)
    return wanted
  }

  private entries(entries: MovePiece[][], comment: Piece | null, line: string, offset: number): void {
    const section = this.section
    const holds = section && formatOf(section).notation.moves !== 'none'
    if (!holds) {
      if (!this.lost)
        complain(this.problems, {
          code: section ? 'no-moves-here' : 'no-section',
          at: { from: offset, to: offset + line.trimEnd().length },
          values: { found: section ? formatOf(section).notation.head : '' },
        })
      if (comment) this.remark(comment.text)
      return this.keepUnread(line.slice(0, comment?.from ?? line.length).trim())
    }
    // Where a bracket holds what nobody knows, it is kept above the move that it stood at.
    entries.forEach((entry, index) => {
      const beside = index === entries.length - 1 && comment ? clipped(comment.text, MOST_REMARK) : ''
      if ('rows' in section)
        for (const move of entry)
          this.row(section, move, entry.indexOf(move) === entry.length - 1 ? beside : '', offset)
      else this.moves(section, entry, beside, offset)
    })
  }

  private moves(section: Section, entry: MovePiece[], beside: string, offset: number): void {
    const stations = entry.map((move) => this.station(move, offset))
    const first = stations[0]
    if (!first) return
    const at = (index: number): { from: number; to: number } =>
      shifted(entry[index] ?? entry[0] ?? { from: 0, to: 0 }, offset)
    if ('groups' in section) {
      if (section.groups.length >= 500 || stations.length > 500)
        return complain(this.problems, { code: 'too-many', at: at(0), values: { most: '500' } })
      Object.assign(first, { above: this.above, beside })
      this.above = []
      const [low, high] = formatOf(section).notation.groupSize ?? [1, 0]
      if (stations.length < low || (high && stations.length > high))
        complain(this.problems, {
          code: 'group-size',
          at: at(0),
          values: { found: String(stations.length), most: String(high || low) },
        })
      section.groups.push(stations)
      stations.forEach((_, index) =>
        this.spans.push({
          ...at(index),
          sectionKey: section.key,
          station: ['groups', section.groups.length - 1, index],
        }),
      )
    } else if ('stations' in section) {
      if (section.stations.length + stations.length > MOST_STATIONS)
        return complain(this.problems, { code: 'too-many', at: at(0), values: { most: String(MOST_STATIONS) } })
      // What is joined by `+` shares one interval.
      for (const station of stations.slice(1)) station.joined = true
      first.above = this.above
      this.above = []
      const last = stations.at(-1)
      if (last) last.beside = beside
      for (const [index, station] of stations.entries()) {
        section.stations.push(station)
        this.spans.push({ ...at(index), sectionKey: section.key, station: ['stations', section.stations.length - 1] })
      }
    }
  }

  private station(move: MovePiece, offset: number): Station {
    const station = newStation(this.labelOf(move.label, offset))
    if (move.reps !== null) station.reps = this.repsOf(move, offset)
    for (const setting of move.settings) {
      const read = readSetting(STATION_FIELDS, setting.text)
      if (takesKey(station, setting.text) || takesSwap(station, setting.text) || takesWeight(station, setting.text))
        continue
      if (read?.range) station.ranges[read.field] = read.range
      if (read) Object.assign(station, { [read.field]: read.value })
      else this.unknownSetting(setting, STATION_FIELDS, offset, 'move')
    }
    return station
  }

  private row(section: FreeList, move: MovePiece, beside: string, offset: number): void {
    if (section.rows.length >= MOST_SEGMENTS)
      return complain(this.problems, {
        code: 'too-many',
        at: shifted(move, offset),
        values: { most: String(MOST_SEGMENTS) },
      })
    const reps = move.reps === null ? null : this.repsOf(move, offset)
    const row = newRow({ label: this.labelOf(move.label, offset), reps, beside })
    let timed = false
    for (const setting of move.settings) {
      const length = readRowLength(setting.text)
      const read = readSetting(ROW_FIELDS, setting.text)
      if (length) {
        timed = true
        Object.assign(row, length)
      } else if (read) Object.assign(row, { [read.field]: read.value })
      else if (!takesKey(row, setting.text)) this.unknownSetting(setting, ROW_FIELDS, offset, 'list')
    }
    if (!timed) {
      complain(this.problems, { code: 'no-length', at: shifted(move, offset), values: { found: row.label } })
      row.durationMs = 30_000
    }
    row.above = this.above
    this.above = []
    section.rows.push(row)
    this.spans.push({ ...shifted(move, offset), sectionKey: section.key, station: ['rows', section.rows.length - 1] })
  }

  private repsOf(move: MovePiece, offset: number): number | null {
    if (move.reps !== null && move.reps >= 1 && move.reps <= 10_000) return move.reps
    complain(this.problems, { code: 'bad-reps', at: shifted(move, offset), values: { found: String(move.reps) } })
    return null
  }

  private labelOf(piece: Piece, offset: number): string {
    return piece.text === '-' ? '' : this.nameOf(piece, offset)
  }

  private nameOf(piece: Piece, offset: number): string {
    const name = /^"(?:[^"\\]|\\.)*"$/s.test(piece.text) ? (unquote(piece.text) ?? piece.text) : piece.text
    if (name.length > MOST_NAME)
      complain(this.problems, { code: 'too-long', at: shifted(piece, offset), values: { most: String(MOST_NAME) } })
    return clipped(name, MOST_NAME)
  }

  private unknownSetting(setting: Piece, fields: readonly Field[], offset: number, head: string): void {
    const words = setting.text.split(/\s+/)
    const guess = fields
      .map((field) => field.word)
      .find((word) =>
        words.some((typed) => !/\d/.test(typed) && nearest(typed, [word]) === word && typed.toLowerCase() !== word),
      )
    const typed =
      guess === undefined ? undefined : words.find((one) => !/\d/.test(one) && nearest(one, [guess]) === guess)
    const apart = spaced(setting.text)
    const mended =
      readSetting(fields, apart) !== null
        ? apart
        : guess !== undefined && typed !== undefined
          ? setting.text.replace(typed, guess)
          : null
    const mend: Mend | null =
      mended && readSetting(fields, mended) ? { ...shifted(setting, offset), insert: mended, label: mended } : null
    complain(this.problems, {
      code: 'unknown-setting',
      at: shifted(setting, offset),
      values: {
        ...{ found: clipped(setting.text, 60), head, known: fields.map(exampleOf).join(', ') },
        ...(mend ? { most: mend.label } : {}),
      },
      mend,
    })
    this.keepUnread(setting.text)
  }
}

const isPlain = (head: string): head is PlainHead => (PLAIN_HEADS as readonly string[]).includes(head)

const shifted = (
  { from, to }: { from: number; to: number },
  offset: number,
  most = Infinity,
): { from: number; to: number } => ({ from: offset + Math.min(from, most), to: offset + Math.min(to, most) })

/** `key s4`: whose station or row this is, where its place does not tell. */
function takesKey(held: Station | ListRow, text: string): boolean {
  const key = placeKey.safeParse(/^key (\S+)$/.exec(text)?.[1])
  if (!key.success || !key.data) return false
  held.key = key.data
  return true
}

/** `35 work`, `about 36 work`, `open talk`. */
function readRowLength(text: string): Pick<ListRow, 'kind' | 'durationMs' | 'estimated'> | null {
  const read = /^(about\s+)?(.+?)\s+(\w+)$/i.exec(text)
  const kind = read?.[3]?.toLowerCase() as Kind
  if (!read || !KINDS.includes(kind)) return null
  const open = read[2]?.toLowerCase() === 'open'
  const durationMs = open ? null : parseLength(read[2] ?? '')
  return !open && durationMs === null ? null : { kind, durationMs, estimated: Boolean(read[1]) }
}
