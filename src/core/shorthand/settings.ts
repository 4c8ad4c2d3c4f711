// One setting of the shorthand, `35 on` or `last rest dropped`: read by, and written from, the fields of a format.
import { holdsRanges, likelyOf, type Field } from '../score/formats/fields'
import { key, type Range } from '../score/primitives'
import { formatLength, parseLength } from '../time/clock'
import type { Ms } from '../units'

/** Lengths as they are typed: plain seconds below a minute, a clock above. */
export const writeLength = (ms: Ms): string => (ms < 60_000 ? String(ms / 1000) : formatLength(ms))

/** `upAndDown` is typed `up and down`. */
export const spaced = (option: string): string => option.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`)

export const quote = (text: string): string => JSON.stringify(text)

/** A quoted text, or words as they stand; null when the quoting is broken. */
export function unquote(text: string): string | null {
  if (!text.startsWith('"')) return text.includes('"') ? null : text
  try {
    const read: unknown = JSON.parse(text)
    return typeof read === 'string' ? read : null
  } catch {
    return null
  }
}

/** Every quoted text in a row: `"lap" "laps"`. */
export const quotedIn = (text: string): string[] =>
  [...text.matchAll(/"(?:[^"\\]|\\.)*"/g)].map(([one]) => unquote(one) ?? '')

export interface Assignment {
  field: string
  value: unknown
  /** The range that the value is the middle of, where one was typed. */
  range?: Range
}

/** Kinds whose word stands in front. */
const NAMED_FIRST: ReadonlySet<Field['kind']> = new Set(['choice', 'optionalChoice', 'text', 'section'])

/** The field that a setting means, with its value; null when it means none of them. */
export function readSetting(fields: readonly Field[], text: string): Assignment | null {
  for (const field of fields) {
    const rest = besideWord(text, field.word, !NAMED_FIRST.has(field.kind))
    if (rest === null) continue
    const value = readValue(field, rest)
    if (value !== null) return { field: field.field, value: value.is }
    const range = readRange(field, rest)
    if (range) return { field: field.field, value: likelyOf(field, range), range }
  }
  return null
}

/** What stands before or after the word; numbers may stand on either side. A plural loses its s: `1 round`. */
function besideWord(text: string, word: string, eitherSide: boolean): string | null {
  const wanted = word.toLowerCase(),
    given = text.toLowerCase()
  for (const form of wanted.endsWith('s') ? [wanted, wanted.slice(0, -1)] : [wanted]) {
    if (given.startsWith(`${form} `)) return text.slice(form.length).trim()
    if (eitherSide && given.endsWith(` ${form}`)) return text.slice(0, -form.length).trim()
  }
  return null
}

function readValue(field: Field, text: string): { is: unknown } | null {
  switch (field.kind) {
    case 'count': {
      const value = Number(text)
      return /^\d+$/.test(text) && value >= field.low && value <= field.high ? { is: value } : null
    }
    case 'length':
    case 'optionalLength':
      return boxed(parseLength(text))
    case 'choice':
    case 'optionalChoice':
      return boxed(field.options.find((option) => spaced(option) === text.toLowerCase()) ?? null)
    case 'text': {
      const value = unquote(text)
      return value === null || value.length > field.most ? null : { is: value }
    }
    case 'section':
      return key.safeParse(text).success ? { is: text } : null
    case 'lengths':
      return each(text, parseLength)
    case 'workRests':
      return each(text, (part) => {
        const [work, rest, ...more] = part.split('/').map(parseLength)
        return work === null || work === undefined || rest === null || rest === undefined || more.length
          ? null
          : { workMs: work, restMs: rest }
      })
  }
}

/** `10-20`, `1:00-2:00`: a number of which only the bounds are known. */
function readRange(field: Field, text: string): Range | null {
  const [from = '', to = '', ...more] = text.split('-').map((part) => part.trim())
  const low = readValue(field, from),
    high = readValue(field, to)
  if (more.length || !low || !high || !holdsRanges(field)) return null
  const [least, most] = [Number(low.is), Number(high.is)]
  return least < most ? [least, most] : null
}

const boxed = (value: unknown): { is: unknown } | null => (value === null ? null : { is: value })

function each<T>(text: string, read: (part: string) => T | null): { is: T[] } | null {
  const parts = text.split(/\s+then\s+/i).map((part) => read(part.trim()))
  return parts.some((part) => part === null) || parts.length > 500 ? null : { is: parts as T[] }
}

/** Words that read better in front: `lead 10`, `from 20`, `about 40`. Either order is read. */
const WORD_FIRST = new Set([
  'promise',
  'about',
  'lead',
  'from',
  'step',
  'slot',
  'long',
  'rest',
  'short',
  'after each slot',
  'each demo',
  'climb',
  'gap',
  'break',
  'wanted rest',
  'reminder',
  'talk',
  'hold',
  'effort',
  'round',
  'set',
])

const beside = (value: string, word: string): string => (WORD_FIRST.has(word) ? `${word} ${value}` : `${value} ${word}`)

/**
 * The setting as typed, or null where the value is what nothing typed would mean.
 * @param range what the value is the middle of.
 */
export function writeSetting(field: Field, value: unknown, range?: Range): string | null {
  if (range && holdsRanges(field) && likelyOf(field, range) === value)
    return beside(range.map((one) => (field.kind === 'count' ? String(one) : writeLength(one))).join('-'), field.word)
  if (value === null || JSON.stringify(value) === JSON.stringify(field.bare)) return null
  switch (field.kind) {
    case 'count':
      return beside(String(value), value === 1 && field.word.endsWith('s') ? field.word.slice(0, -1) : field.word)
    case 'length':
    case 'optionalLength':
      return beside(writeLength(value as Ms), field.word)
    case 'choice':
    case 'optionalChoice':
      return `${field.word} ${spaced(String(value))}`
    case 'text':
      return `${field.word} ${quote(String(value))}`
    case 'section':
      return `${field.word} ${String(value)}`
    case 'lengths':
      return `${(value as Ms[]).map(writeLength).join(' then ')} ${field.word}`
    case 'workRests':
      return `${(value as { workMs: Ms; restMs: Ms }[]).map(({ workMs, restMs }) => `${writeLength(workMs)}/${writeLength(restMs)}`).join(' then ')} ${field.word}`
  }
}

/** How a field is typed, for completion and for complaints. */
export function exampleOf(field: Field): string {
  switch (field.kind) {
    case 'count':
      return beside(String(field.bare > 1 ? field.bare : Math.min(3, field.high)), field.word)
    case 'length':
    case 'optionalLength':
      return beside(writeLength(field.bare || 30_000), field.word)
    case 'choice':
    case 'optionalChoice':
      return `${field.word} ${spaced(field.options[1] ?? field.options[0] ?? '')}`
    case 'text':
      return `${field.word} "..."`
    case 'section':
      return `${field.word} main`
    case 'lengths':
      return `40 then 20 ${field.word}`
    case 'workRests':
      return `40/20 then 30/10 ${field.word}`
  }
}
