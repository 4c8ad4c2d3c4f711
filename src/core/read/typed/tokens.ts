// A line of a typed plan as tokens, each with the part it can play. What becomes of each is written on it later: every
// token ends up used, kept or not understood.
import { DAY } from '../../units'
import { english } from './words/en'
import type { Role } from './words/wordList'

/** `used`: it is in the score. `kept`: it stays as a remark. `unread`: nobody knows what it means. */
export type Fate = 'used' | 'kept' | 'unread'

export interface Token {
  /** 0-based line, and columns in it. */
  line: number
  from: number
  to: number
  text: string
  role: Role
  /** Milliseconds of a length, else a number; both ends alike where no range was typed. */
  low: number
  high: number
  /** A number in words, which may be part of a name ("one-arm row"). */
  spelled: boolean
  fate: Fate
  /** As what it was used, in the words of facts: `work`, `rest`, `rounds`, `move` ... */
  as: string
}

const unitNames = Object.keys(english.units).sort((one, other) => other.length - one.length)
const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&')
const UNIT = `(?:${unitNames.map(escaped).join('|')})(?![\\p{L}\\p{N}])`
/** Halves and quarters too: "1/2 min". */
const AMOUNT = '(?:[13]\\/[24](?=\\s?(?:m|h))|\\d{1,4}(?:[.,]\\d{1,3})?)'

const LENGTH = new RegExp(
  `(${AMOUNT})(?:(?:[-–]|\\s*to\\s*)(${AMOUNT}))?\\s*-?\\s*(${UNIT})(?:(?:(?<=(?<!\\p{L})(?:s|secs?|mins?|hrs?))\\.(?=\\s*[,;/\\p{L}]))|(?<=m|h|mins?|minutes?|hrs?|hours?)\\s*(?:and\\s*)?(\\d{1,2})\\s*((?:s|secs?|seconds?)(?![\\p{L}\\p{N}])))?`,
  'iuy',
)
const CLOCK = /(\d{0,3}):([0-5]\d)(?![\d:])/uy
const RANGE = /(?<![-–\d.,])(\d{1,4})(?:[-–]|\s?to\s?)(\d{1,4})(?![\d.,]*\d|\s?[-–]\s?\d|\p{L})/iuy
const NUMBER = /\d{1,6}(?:st|nd|rd|th)?(?![\d])/iuy
const TIMES = /[x×](?=\s*\d|\s*\(|\s*$|\s*[,;:.|)])|[x×](?![\p{L}])/iuy
const WORD = /\p{L}[\p{L}\p{M}\p{N}]*(?:['’.-](?=\p{L})[\p{L}\p{M}\p{N}]+)*/uy
const SPACE = /\s+/uy
const PHRASES = english.phrases.map(
  ([pattern, role, value]) => ({ pattern: new RegExp(`(?:${pattern})`, 'iuy'), role, value }) as const,
)
const MARKS: Readonly<Record<string, string>> = {
  ';': ';',
  '|': '|',
  '–': '-',
  '—': '-',
  '→': 'T',
  '•': '*',
  '=': '=',
  '\t': '|',
}

/** A word that stands under several parts plays the first. */
const WORD_ROLES: ReadonlyMap<string, Role> = new Map(
  Object.entries(english.words)
    .reverse()
    .flatMap(([role, words]) => words.split(' ').map((word) => [word, role] as const)),
)

/** What begins at a place of a line: how many letters, and the part they play. */
interface Found {
  length: number
  role: Role
  more?: Pick<Token, 'low' | 'high'> & Partial<Token>
}
interface Scan {
  text: string
  at: number
  match: (pattern: RegExp) => RegExpExecArray | null
  /** No letter and no digit stands before. */
  edge: boolean
  /** The same, or a digit: "3x", "40s". */
  numberEdge: boolean
}

/** In the order in which they are tried. */
const FINDERS: readonly ((scan: Scan) => Found | null)[] = [
  phraseAt,
  clockAt,
  lengthAt,
  rangeAt,
  numberAt,
  timesAt,
  wordAt,
]

/** The tokens of one line, in order; what is no word, number or mark of a plan is a mark of its own. */
export function tokensOf(text: string, line: number): Token[] {
  const tokens: Token[] = []
  let at = 0
  const match = (pattern: RegExp): RegExpExecArray | null => {
    pattern.lastIndex = at
    return pattern.exec(text)
  }
  while (at < text.length) {
    const space = match(SPACE)
    at += space?.[0].length ?? 0
    if (at >= text.length) break
    const before = at ? text.charAt(at - 1) : ''
    const scan: Scan = { text, at, match, edge: !/[\p{L}\p{N}]/u.test(before), numberEdge: !/\p{L}/u.test(before) }
    const { length, role, more } = firstOf(scan) ?? markAt(scan)
    const base = { line, from: at, to: at + length, text: text.slice(at, at + length), role, low: 0, high: 0 }
    tokens.push({ ...base, spelled: false, fate: 'unread', as: '', ...more })
    at += length
  }
  return joined(tokens, text)
}

function firstOf(scan: Scan): Found | null {
  for (const find of FINDERS) {
    const found = find(scan)
    if (found) return found
  }
  return null
}

function clockAt({ match, numberEdge, text, at }: Scan): Found | null {
  const clock = numberEdge ? match(CLOCK) : null
  if (!clock || (clock[1] === '' && /\d/.test(text.charAt(at - 1)))) return null
  const ms = bounded((Number(clock[1] || 0) * 60 + Number(clock[2])) * 1000)
  return { length: clock[0].length, role: 'L', more: { low: ms, high: ms } }
}

function lengthAt({ match, numberEdge, text, at }: Scan): Found | null {
  const length = numberEdge ? match(LENGTH) : null
  // The last of "20-30-40 seconds" is no range.
  const listed = length?.[2] !== undefined && /\d[-–]$/.test(text.slice(Math.max(0, at - 2), at))
  return length && !listed ? { length: length[0].trimEnd().length, role: 'L', more: lengthOf(length) } : null
}

function rangeAt({ match, numberEdge }: Scan): Found | null {
  const range = numberEdge ? match(RANGE) : null
  const [low, high] = [Number(range?.[1]), Number(range?.[2])]
  return range && low < high ? { length: range[0].length, role: 'N', more: { low, high } } : null
}

function numberAt({ match }: Scan): Found | null {
  const number = match(NUMBER)
  if (!number) return null
  const value = parseInt(number[0], 10)
  return { length: number[0].length, role: /\p{L}/u.test(number[0]) ? '1' : 'N', more: { low: value, high: value } }
}

function timesAt({ match, numberEdge }: Scan): Found | null {
  return numberEdge && match(TIMES) ? { length: 1, role: 'x' } : null
}

/** "minute" without a number: no name of anything. */
const isUnitWord = (said: string): boolean => said.length > 3 && english.units[said] !== undefined

/** "once", "twice": a number and the word for times in one. */
const TIMES_WORDS = new Set(['once', 'twice', 'thrice'])

function wordAt({ match }: Scan): Found | null {
  const word = match(WORD)
  if (!word) return null
  const said = word[0].toLowerCase()
  const value = english.numbers[said]
  if (value === undefined)
    return { length: word[0].length, role: WORD_ROLES.get(said) ?? (isUnitWord(said) ? 'g' : 'W') }
  const more = { low: value, high: value, spelled: true }
  return { length: word[0].length, role: TIMES_WORDS.has(said) ? 'D2' : 'N', more }
}

function markAt({ text, at }: Scan): Found {
  const mark = String.fromCodePoint(text.codePointAt(at) ?? 0)
  return { length: mark.length, role: MARKS[mark] ?? (/^[,/+&:().!?\-=]$/.test(mark) ? mark : '*') }
}

/** Whether any begins here, before it is asked which. */
const ANY_PHRASE = new RegExp(`(?:${english.phrases.map(([pattern]) => `(?:${pattern})`).join('|')})`, 'iuy')

function phraseAt({ match, edge }: Scan): Found | null {
  if (!edge || !match(ANY_PHRASE)) return null
  for (const { pattern, role, value = 0 } of PHRASES) {
    const found = match(pattern)
    const length = found?.[0].trimEnd().length
    if (length) return { length, role, more: { low: value, high: value, spelled: true } }
  }
  return null
}

const bounded = (ms: number): number => Math.min(DAY, Math.max(0, Math.round(ms)))

function lengthOf(found: RegExpExecArray): Pick<Token, 'low' | 'high'> {
  const unit = english.units[(found[3] ?? '').toLowerCase().replace(/\.$/, '')] ?? 1000
  const amount = (text: string): number => {
    const [over = '0', under] = text.split('/')
    return (Number(over.replace(',', '.')) / Number(under ?? 1)) * unit
  }
  const more = Number(found[4] ?? 0) * 1000
  const low = amount(found[1] ?? '0') + more
  const high = found[2] === undefined ? low : amount(found[2]) + more
  return low <= high ? { low: bounded(low), high: bounded(high) } : { low: bounded(high), high: bounded(low) }
}

/** "forty seconds", "10 to 20 s", "2 to 4": what is one number, said in several tokens. */
function joined(tokens: readonly Token[], text: string): Token[] {
  const out: Token[] = []
  for (const token of tokens) {
    const before = out.at(-1)
    const unit = english.units[token.text.toLowerCase()]
    if (before && before.role === 'N' && before.spelled && unit !== undefined && token.role !== 'L') {
      Object.assign(before, {
        ...{ to: token.to, text: text.slice(before.from, token.to), role: 'L' },
        ...{ low: bounded(before.low * unit), high: bounded(before.high * unit) },
      })
      continue
    }
    if (token.role === 'D2') {
      out.push({ ...token, role: 'N' }, { ...token, role: 't', from: token.to, text: '' })
      continue
    }
    out.push(token)
  }
  return out.map((token) => (token.role.length > 1 ? { ...token, role: 'W' } : token))
}
