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
const AMOUNT = '\\d{1,4}(?:[.,]\\d{1,3})?'

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
/** First letters that some phrase begins with, so that most words are not tried against all. */
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

/** The tokens of one line, in order; what is no word, number or mark of a plan is a mark of its own. */
export function tokensOf(text: string, line: number): Token[] {
  const tokens: Token[] = []
  let at = 0
  const push = (to: number, role: Role, more: Partial<Token> = {}): void => {
    const base = { line, from: at, to, text: text.slice(at, to), role, low: 0, high: 0, spelled: false }
    tokens.push({ ...base, fate: 'unread', as: '', ...more })
    at = to
  }
  const match = (pattern: RegExp): RegExpExecArray | null => {
    pattern.lastIndex = at
    return pattern.exec(text)
  }
  const edge = (): boolean => at === 0 || !/[\p{L}\p{N}]/u.test(text.charAt(at - 1))
  while (at < text.length) {
    const space = match(SPACE)
    if (space) {
      at += space[0].length
      continue
    }
    if (edge() || /\d/.test(text.charAt(at - 1))) {
      const phrase = edge() ? phraseAt(match) : null
      if (phrase) {
        push(at + phrase.length, phrase.role, { low: phrase.value, high: phrase.value, spelled: true })
        continue
      }
      const clock = match(CLOCK)
      if (clock && !(clock[1] === '' && /\d/.test(text.charAt(at - 1)))) {
        const ms = bounded((Number(clock[1] || 0) * 60 + Number(clock[2])) * 1000)
        push(at + clock[0].length, 'L', { low: ms, high: ms })
        continue
      }
      const length = match(LENGTH)
      // The last of "20-30-40 seconds" is no range.
      const listed = length?.[2] !== undefined && /\d[-–]$/.test(text.slice(0, at))
      if (length && !listed) {
        push(at + length[0].trimEnd().length, 'L', lengthOf(length))
        continue
      }
      const range = match(RANGE)
      if (range && Number(range[1]) < Number(range[2])) {
        push(at + range[0].length, 'N', { low: Number(range[1]), high: Number(range[2]) })
        continue
      }
    }
    const number = match(NUMBER)
    if (number) {
      const value = parseInt(number[0], 10)
      const role = /\p{L}/u.test(number[0]) ? '1' : 'N'
      push(at + number[0].length, role, { low: value, high: value })
      continue
    }
    const times = match(TIMES)
    if (times && (edge() || /\d/.test(text.charAt(at - 1)))) {
      push(at + 1, 'x')
      continue
    }
    const word = match(WORD)
    if (word) {
      const said = word[0].toLowerCase()
      const value = english.numbers[said]
      if (value === undefined) push(at + word[0].length, WORD_ROLES.get(said) ?? 'W')
      else
        push(at + word[0].length, said === 'once' || said === 'twice' || said === 'thrice' ? 'D2' : 'N', {
          low: value,
          high: value,
          spelled: true,
        })
      continue
    }
    const mark = String.fromCodePoint(text.codePointAt(at) ?? 0)
    push(at + mark.length, MARKS[mark] ?? (/^[,/+&:().!?\-=]$/.test(mark) ? mark : '*'))
  }
  return joined(tokens, text)
}

/** Whether any begins here, before it is asked which. */
const ANY_PHRASE = new RegExp(`(?:${english.phrases.map(([pattern]) => `(?:${pattern})`).join('|')})`, 'iuy')

function phraseAt(
  match: (pattern: RegExp) => RegExpExecArray | null,
): { length: number; role: Role; value: number } | null {
  if (!match(ANY_PHRASE)) return null
  for (const { pattern, role, value } of PHRASES) {
    const found = match(pattern)
    if (found?.[0]) return { length: found[0].trimEnd().length, role, value: value ?? 0 }
  }
  return null
}

const bounded = (ms: number): number => Math.min(DAY, Math.max(0, Math.round(ms)))

function lengthOf(found: RegExpExecArray): Pick<Token, 'low' | 'high'> {
  const unit = english.units[(found[3] ?? '').toLowerCase().replace(/\.$/, '')] ?? 1000
  const amount = (text: string): number => Number(text.replace(',', '.')) * unit
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
