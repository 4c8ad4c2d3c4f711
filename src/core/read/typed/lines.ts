// A line of a typed plan taken apart: its facts, the words that are left, and how they hang together. Nothing is
// decided here about what the line is for.
import { factsIn, type Fact } from './facts'
import { tokensOf, type Token } from './tokens'
import { english } from './words/en'
import type { Topic } from './words/wordList'

/** A run of words between two marks, with the facts that stand in it. */
export interface Piece {
  /** The mark before it; empty at the start of a line. */
  mark: string
  words: readonly Token[]
  facts: readonly Fact[]
  /** Numbers and lengths that no pattern took. */
  numbers: readonly Token[]
  /** Words in brackets: a note to the piece. */
  aside: readonly Token[]
  text: string
}

export interface Line {
  index: number
  text: string
  tokens: readonly Token[]
  bulleted: boolean
  /** The number or mark that a list gives the line. */
  bullet: Token | null
  /** Pieces before each colon that ends a heading, and those after the last. */
  parts: readonly (readonly Piece[])[]
}

const BULLET =
  /^\s*(?:(?:[-*•·–—>▪»‣◦☐✓✔✅👉➡→]+\uFE0F?|\d{1,2}\s*[.)](?=\s*\p{L}|\s+[\d(])|\d{1,2}\s+[-–:]\s+(?=\p{L})|[A-Ha-h]\d?[.)](?=\s)|[A-H]\d?:(?=\s)|[A-H]\d(?=\s+\p{L}))\s*)+/u
/** Pictures and what hangs on them say nothing that a plan needs. */
const PICTURE = /[\p{Extended_Pictographic}\uFE0F\u200D\u20E3]/gu

/** Marks that divide a line; the others stand within a piece. */
const DIVIDES = new Set([',', ';', '|', '/', 'T', '.', '-', '!', '?', '+', '&', '@'])

/** Nobody types a plan in lines this long. */
const LONGEST_LINE = 1200

/**
 * @param numbered the number that it begins with is its place in a list.
 * @returns null for a line with nothing in it.
 */
function lineOf(raw: string, index: number, numbered = false): Line | null {
  const plain = raw.replace(PICTURE, (picture) => (/[✅👉➡✓✔]/u.test(picture) ? '-' : ' '.repeat(picture.length)))
  // "(40s) Squats" says no more than "40s Squats".
  const unboxed = plain.replace(/^(\s*)[([](\d[^)\]]{0,20})[)\]](?=\s*\p{L})/u, '$1 $2 ')
  // "Work = 40 s" says no more than "Work: 40 s".
  const unequal = unboxed.replace(/^(\s*\p{L}[\p{L} ]{0,24}) = /u, '$1 : ')
  const bullet = english.minuteMark.exec(unequal) ?? BULLET.exec(unequal) ?? (numbered ? NUMBERED.exec(unequal) : null)
  const bulleted = bullet !== null
  const indent = bullet?.[0].length ?? 0
  const text = unequal.slice(indent)
  if (!text.trim()) return null
  const tokens = tokensOf(text, index)
  for (const token of tokens) Object.assign(token, { from: token.from + indent, to: token.to + indent })
  return {
    index,
    text: raw,
    tokens,
    bulleted,
    bullet: bulletOf(bullet?.[0] ?? '', index),
    parts: partsOf(tokens, factsIn(tokens)),
  }
}

/** A text, and the line that it is; null for nothing, and for what is too long to be typed by anybody. */
export interface TextLine {
  text: string
  line: Line | null
}

/** All lines of a text. What is needed stands apart from what is done: "20 minutes, equipment: one jug" is two. */
export function linesOf(texts: readonly string[]): TextLine[] {
  const clauses = texts.flatMap((text, index) => clausesOf(text).map((clause) => ({ text: clause, index })))
  const read = ({ text, index }: { text: string; index: number }, numbered = false): TextLine => ({
    text,
    line: text.length > LONGEST_LINE ? null : lineOf(text, index, numbered),
  })
  const lines = clauses.map((clause) => read(clause))
  for (const at of runningNumbers(lines))
    lines.splice(at, 1, ...clauses.slice(at, at + 1).map((one) => read(one, true)))
  return lines
}

/** Each part keeps its place in the line. */
function clausesOf(text: string): string[] {
  if (text.length > LONGEST_LINE) return [text]
  let from = 0
  return text.split(english.gearWithin).map((part) => {
    const placed = ' '.repeat(from) + part
    from += part.length
    return placed
  })
}

const NUMBERED = /^(\s*)(\d{1,2})(?=\s+\p{L})/u
/** Fewer numbers in a row may be reps. */
const FEWEST_NUMBERED = 3

/**
 * Lines numbered from 1 on without a dot. Where the clock decides what is done they are places in a list, and no reps.
 * @returns their places.
 */
function runningNumbers(lines: readonly TextLine[]): number[] {
  const timed = lines.some(({ line }) =>
    line?.parts.flat().some(({ facts }) => facts.some(({ kind }) => kind === 'work')),
  )
  if (!timed) return []
  const found: number[] = []
  let run: number[] = []
  const close = (): void => {
    if (run.length >= FEWEST_NUMBERED) found.push(...run)
    run = []
  }
  lines.forEach(({ text }, index) => {
    const number = Number(NUMBERED.exec(text)?.[2] ?? 0)
    if (number !== run.length + 1) close()
    if (number === run.length + 1) run.push(index)
  })
  close()
  return found
}

function bulletOf(text: string, line: number): Token | null {
  const said = text.trim()
  const from = text.indexOf(said)
  const base = { line, from, to: from + said.length, text: said, role: '*', low: 0, high: 0, spelled: false }
  return said ? { ...base, fate: 'kept', as: 'list' } : null
}

function partsOf(tokens: readonly Token[], facts: readonly Fact[]): Piece[][] {
  const { factsAt, taken } = placesOf(facts)
  const parts: Piece[][] = [[]]
  let open = new OpenPiece('')
  const close = (mark: string): void => {
    if (!open.empty) parts.at(-1)?.push(open.done())
    open = new OpenPiece(mark)
  }
  let depth = 0
  /** Within a bracket that holds a list: "3 x (30 s squat, 30 s lunge)". */
  let flat = false
  for (const token of tokens) {
    for (const fact of factsAt.get(token) ?? []) {
      // "(round 2: skater)" is said of the move before it.
      if (fact.kind === 'roundNo' && depth && !open.listing) for (const held of fact.tokens) taken.delete(held)
      else open.fact(fact)
    }
    if (taken.has(token)) continue
    if (token.role === '(') {
      flat ||= open.listing
      depth += flat ? 0 : 1
    } else if (token.role === ')') {
      flat = false
      depth = Math.max(0, depth - 1)
    } else if (token.role === ':' && !depth) {
      close('')
      parts.push([])
    } else if (DIVIDES.has(token.role) && !depth) close(token.role)
    else open.word(token, depth > 0)
  }
  close('')
  return parts
}

/** Facts by the token that they begin with, and all tokens that one has. */
function placesOf(facts: readonly Fact[]): { factsAt: Map<Token, Fact[]>; taken: Set<Token> } {
  const factsAt = new Map<Token, Fact[]>()
  let first: Token | undefined
  for (const fact of facts) {
    // What one pattern said besides stands with it.
    first = fact.tokens[0] ?? first
    if (first) factsAt.set(first, [...(factsAt.get(first) ?? []), fact])
  }
  return { factsAt, taken: new Set(facts.flatMap(({ tokens }) => tokens)) }
}

class OpenPiece {
  private readonly words: Token[] = []
  private readonly facts: Fact[] = []
  private readonly numbers: Token[] = []
  private readonly aside: Token[] = []
  constructor(private readonly mark: string) {}

  get empty(): boolean {
    return !this.words.length && !this.facts.length && !this.numbers.length && !this.aside.length
  }

  /** "3 x (30 s squat, 30 s lunge)": the bracket holds a list and not a note. */
  get listing(): boolean {
    return !this.words.length && (this.numbers.length > 0 || this.facts.length > 0 || this.aside.length > 0)
  }

  fact(fact: Fact): void {
    this.facts.push(fact)
  }

  word(token: Token, inside: boolean): void {
    if (token.role === '*' || token.role === '=' || token.role === 'x') return
    if (token.role === 'K') return void this.aside.push(token)
    if (inside && this.words.length && token.role !== 'L') this.aside.push(token)
    else if (token.role === 'L' || token.role === 'N') this.numbers.push(token)
    else this.words.push(token)
  }

  done(): Piece {
    const { words, facts, numbers, aside, mark } = this
    return {
      mark,
      words: aside.length && !words.length ? aside : words,
      facts,
      numbers,
      aside: words.length ? aside : [],
      text: textOf(words),
    }
  }
}

const GLUE: ReadonlySet<string> = new Set('gnMxebT&:qwrtpimos1ABUDYFC()0k>Ej')

/** The words without those at either end that only hold others together. */
export function textOf(words: readonly Token[]): string {
  const kept = coreOf(words)
  return kept
    .map(({ text }) => text)
    .join(' ')
    .replace(/ ([’'])/g, '$1')
}

/** "of squats", "then the plank": what is said of itself. */
export function coreOf(words: readonly Token[]): readonly Token[] {
  const holds = ({ role }: Token): boolean => role === 'g' || role === 'T' || role === '&' || role === ':'
  let from = 0,
    to = words.length
  while (from < to && words[from] && holds(words[from] as Token)) from++
  while (to > from && words[to - 1] && holds(words[to - 1] as Token)) to--
  return words.slice(from, to)
}

/** Whether anything is said beyond the words of the clock: only then can it be a move. */
export const isWorded = ({ words }: Piece): boolean =>
  words.some(({ role, text }) => !GLUE.has(role) && /\p{L}{2}/u.test(text))

/** Words alone as a piece. */
export const pieceOf = (words: readonly Token[]): Piece => ({
  ...{ mark: '', words, facts: [], numbers: [], aside: [], text: textOf(words) },
})

/** Words beyond those that name a topic, and those that only hold others together. */
export function extraWords(words: readonly Token[], topic: Topic | null): number {
  const pattern = english.topics.find(([one]) => one === topic)?.[1]
  const said = words.map(({ text, role }) => (role === 'W' || topic ? text : '')).join(' ')
  const left = pattern ? said.replace(pattern, ' ') : said
  const plain = new Set(words.filter(({ role }) => role !== 'W').map(({ text }) => text))
  return left.split(' ').filter((word) => word.length > 1 && !plain.has(word)).length
}

/** All that a text names. */
export const topicsOf = (text: string): Topic[] =>
  english.topics.flatMap(([topic, pattern]) => (pattern.test(text.trim()) ? [topic] : []))

/** What a heading is about; null where its words say nothing. */
export function topicOf(text: string): Topic | null {
  for (const [topic, pattern] of english.topics) if (pattern.test(text.trim())) return topic
  return null
}
