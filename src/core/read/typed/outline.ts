// The lines of a typed plan as a title and blocks: what each says of its lengths and rounds, and the moves that stand
// under it. Which format a block means is decided later.
import type { Fact } from './facts'
import { coreOf, extraWords, isWorded, lineOf, LONGEST_LINE, textOf, topicOf, type Line, type Piece } from './lines'
import { FEWEST_STAMPS, isStamp } from './stamps'
import type { Fate, Token } from './tokens'
import { english } from './words/en'
import type { Topic } from './words/wordList'

/** A move as it was typed, or several that belong together. */
export interface Item {
  parts: readonly { label: string; reps: number | null; tokens: readonly Token[] }[]
  /** The mark that joins the parts. */
  joiner: '+' | '&' | '/' | ''
  workMs: number | null
  restMs: number | null
  restTokens: readonly Token[]
  sets: number | null
  facts: readonly Fact[]
  /** Begun after another: "20 high knees, then squats". */
  then: boolean
  note: string
  bulleted: boolean
}

export interface Block {
  topic: Topic | null
  /** Numbered or lettered, as it was typed. */
  name: string
  facts: Fact[]
  /** Lengths that stand alone: stated totals. */
  totals: Token[]
  /** Bare numbers beside a heading: "EMOM 12". */
  numbers: Token[]
  items: Item[]
  remarks: string[]
  unread: string[]
  link: string
  /** Which round its items or lengths are of, where it says so. */
  round: number | null
  /** Rests on lines of their own; `own`: taken for that of the move before. */
  closing: { ms: { low: number; high: number }; tokens: readonly Token[]; own: boolean }[]
}

export interface Outline {
  title: string
  titleTokens: readonly Token[]
  /** A length in the title. */
  promise: Token | null
  blocks: Block[]
  tokens: Token[]
}

export const mark = (tokens: Iterable<Token>, fate: Fate, as: string): void => {
  for (const token of tokens) Object.assign(token, { fate, as })
}

const newBlock = (topic: Topic | null = null, name = ''): Block => ({
  ...{ topic, name, facts: [], totals: [], numbers: [], items: [], remarks: [], unread: [], link: '', round: null },
  closing: [],
})

/** Facts that make a line a heading or a setting, wherever it stands. */
const STRONG: ReadonlySet<Fact['kind']> = new Set([
  ...(['between', 'rounds', 'pairs', 'lengths', 'restIsWork', 'step', 'slot', 'up', 'burstCount'] as const),
  ...(['noRest', 'moveCount', 'stationByStation', 'restAfterRound', 'roundNo', 'start'] as const),
])
/** Facts that one move can have for itself. */
const OWN: ReadonlySet<Fact['kind']> = new Set([
  ...([
    'eachSide',
    'halves',
    'byRep',
    'rightFirst',
    'left',
    'right',
    'reps',
    'setsOfReps',
    'remainder',
    'rest',
    'work',
  ] as const),
])

const MINUTE_HEAD = /^(?:(?:odd|even)(?: minutes?)?|minutes?(?: \d+)?|min(?: \d+)?)$/i
const DURATION_HEAD = /^(?:total |)(?:duration|length|time|total)$/i

export class OutlineReader {
  private readonly out: Outline = { title: '', titleTokens: [], promise: null, blocks: [], tokens: [] }
  private open: Block | null = null
  private lines: Line[] = []
  private headed: ReadonlySet<number> = new Set()
  /** The text holds a list of chapters among other things: the description's, not the plan's. */
  private stamped = false
  /** Parts that a line names after its moves: "then 2 min stretch". */
  private readonly later: Piece[] = []

  read(texts: readonly string[], title: string): Outline {
    this.out.title = title
    const lines = texts.map((text, index) => (text.length > LONGEST_LINE ? null : lineOf(text, index)))
    this.lines = lines.filter((line): line is Line => line !== null)
    this.headed = this.headings()
    this.stamped = texts.filter(isStamp).length >= FEWEST_STAMPS
    let at = 0
    texts.forEach((text, index) => {
      const line = lines[index]
      if (!line) {
        if (text.trim()) this.block().unread.push(text)
        return
      }
      this.out.tokens.push(...(line.bullet ? [line.bullet] : []), ...line.tokens)
      this.line(line, at++)
    })
    return this.out
  }

  /** Lines that are headings because a line of settings follows each; one alone may be a title. */
  private headings(): ReadonlySet<number> {
    const found = this.lines.flatMap((line, at) => {
      const next = this.lines[at + 1]
      const [pieces = [], ...more] = line.parts
      const plain =
        !line.bulleted &&
        !more.length &&
        pieces.length === 1 &&
        pieces.every((piece) => !piece.facts.length && !piece.numbers.length)
      const short = plain && (pieces[0]?.words.length ?? 9) <= 4
      return short && next && isSettings(next) ? [line.index] : []
    })
    return new Set(found.length > 1 || (found[0] ?? 0) > (this.lines[0]?.index ?? 0) ? found : [])
  }

  private block(): Block {
    this.open ??= this.start(newBlock())
    return this.open
  }

  private start(block: Block): Block {
    this.out.blocks.push(block)
    this.open = block
    return block
  }

  private line(line: Line, at: number): void {
    const link = line.tokens.find(({ role, text }) => role === '@' && !text.startsWith('#'))
    const text = line.tokens.map((token) => token.text).join(' ')
    const topic = topicOf(text)
    if (link && (topic === 'warmUp' || topic === 'coolDown')) return this.outside(line, topic, link.text)
    if (link || line.tokens.every(({ role }) => role === '@')) return this.remark(line)
    const own = line.parts
      .flat()
      .flatMap(({ facts }) => facts)
      .find(({ kind }) => kind === 'ownWay')
    if (own && (topic === 'warmUp' || topic === 'coolDown')) return this.outside(line, topic, '')
    if (english.gear.test(line.text.trim())) return this.remark(line)
    if (this.stamped && isStamp(line.text)) return this.remark(line)
    if (this.isBreak(line)) return this.pause(line)
    const heads = line.parts.slice(0, -1)
    const body = line.parts.at(-1) ?? []
    if (!heads.length && this.isTitle(line, body, at)) return this.title(line, body)
    if (!heads.length && this.isNote(line, body)) {
      const strong = (fact: Fact): boolean => STRONG.has(fact.kind)
      this.settings(body.map((piece) => ({ ...piece, facts: piece.facts.filter(strong), numbers: [] })))
      return this.remark(line)
    }
    if (!heads.length && this.isPreface(line, body)) {
      mark(
        body.flatMap((piece) => piece.words),
        'kept',
        'word',
      )
      return this.settings(body)
    }
    if (heads.length === 1 && heads[0] && this.isColonTitle(line, heads[0], body))
      return this.title(line, [...heads[0], ...body])
    for (const head of heads) this.head(head, line, body)
    if (!body.length) return
    if (!heads.length && this.isHeading(line, body)) return this.heading(body)
    this.body(body, line)
  }

  /** "Water break 1 min": a break that has a name of its own. */
  private isBreak({ tokens, parts, bulleted }: Line): boolean {
    const said = tokens
      .filter(({ role }) => role !== 'L' && role !== 'N' && /\p{L}/u.test(role))
      .map(({ text }) => text)
    return !bulleted && parts.flat().some(isWorded) && said.length <= 3 && topicOf(said.join(' ')) === 'break'
  }

  private pause(line: Line): void {
    const words = line.tokens.filter(({ role }) => role === 'W' || role === 'r')
    mark(words, 'used', 'break')
    this.start(newBlock('break', words.map(({ text }) => text).join(' ')))
    this.settings(line.parts.flat())
    this.open = null
  }

  private outside(line: Line, topic: 'warmUp' | 'coolDown', link: string): void {
    const words = line.parts.flat().flatMap((piece) => piece.words)
    const core = coreOf(words.filter(({ role }) => role !== '@'))
    const name = core.length <= 3 ? textOf(core) : ''
    const block = this.start(newBlock(topic, /\p{L}/u.test(name) ? name : ''))
    block.link = link
    block.facts.push({ kind: 'ownWay', tokens: [] })
    mark(line.tokens, 'used', topic)
    this.open = null
  }

  private remark(line: Line): void {
    const unused = line.tokens.filter(({ fate }) => fate !== 'used')
    mark(unused, 'kept', 'remark')
    ;(this.open ?? this.out.blocks.at(-1) ?? this.block()).remarks.push(line.text.trim())
  }

  /** The first line names the plan, unless it says what is to be done. */
  private isTitle({ bulleted, index, text }: Line, body: readonly Piece[], at: number): boolean {
    if (english.notes.test(text) && /[.!?]\s*$/.test(text)) return false
    if (at > 0 || this.out.title || bulleted || this.headed.has(index)) return false
    const facts = body.flatMap((piece) => piece.facts)
    if (facts.some(({ kind }) => kind !== 'same' && kind !== 'roundNo')) return false
    const words = body.flatMap((piece) => piece.words)
    const counts = body.filter((piece) => isWorded(piece) && startsWithNumber(piece) && piece.numbers[0]?.role === 'N')
    if (counts.length > 1) return false
    const topic = topicIn(body)
    const next = this.lines[1]
    const extra = extraWords(words, topic)
    if (!extra && !facts.length) return this.minutesFirst(body) && next !== undefined && saysLengths(next)
    const [length] = body[0]?.numbers ?? []
    if (length && body[0] && startsWithNumber(body[0]) && length.role === 'L' && length.low < 180_000) return false
    return body.some(isWorded)
  }

  /** "20 MINUTE TABATA". */
  private minutesFirst(body: readonly Piece[]): boolean {
    const [length] = body[0]?.numbers ?? []
    const [word] = body[0]?.words ?? []
    return length !== undefined && word !== undefined && length.role === 'L' && length.from < word.from
  }

  private title(line: Line, body: readonly Piece[]): void {
    this.out.title = line.text
      .replace(/[\p{Extended_Pictographic}\uFE0F\u200D]/gu, '')
      .replace(/\s+/g, ' ')
      .trim()
      .replace(/[!]+$/, '')
    this.out.titleTokens = line.tokens
    const lengths = body.flatMap((piece) => piece.numbers).filter(({ role, low }) => role === 'L' && low >= 120_000)
    this.out.promise = lengths.length === 1 ? (lengths[0] ?? null) : null
    mark(line.tokens, 'used', 'title')
  }

  private isNote(line: Line, body: readonly Piece[]): boolean {
    const words = body.flatMap((piece) => piece.words)
    const said = words.filter(({ role }) => role === 'W').length
    if (said && english.notes.test(line.text) && !line.bulleted) return true
    if (line.bulleted) return false
    const facts = body.flatMap((piece) => piece.facts)
    if (said > 7 && !facts.some(({ kind }) => STRONG.has(kind))) return true
    const last = line.tokens.at(-1)?.role
    const numbers = facts.length + body.flatMap((piece) => piece.numbers).length
    if (!numbers && said >= 2 && (last === '!' || last === '?' || (last === '.' && words.length > 2))) return true
    // Where moves stand in a marked list, a bare line after it is none.
    const listed = this.open?.items.some(({ bulleted }) => bulleted) ?? false
    return listed && !numbers && said > 0 && !topicOf(textOf(words)) && !this.headed.has(line.index)
  }

  /** "4 laps of the boat, 35 on, 15 off": numbers with a few words to them, before the moves. */
  private isPreface(line: Line, body: readonly Piece[]): boolean {
    const facts = body.flatMap((piece) => piece.facts)
    const [worded, ...more] = body.filter(isWorded)
    const last = this.lines.at(-1) === line
    if (line.bulleted || last || !worded || more.length || this.open?.items.length) return false
    return has(facts, 'work') && has(facts, 'rest') && has(facts, 'rounds') && startsWithNumber(worded)
  }

  /** "Deck Hours 21: roof circuit". */
  private isColonTitle({ bulleted, index }: Line, head: readonly Piece[], body: readonly Piece[]): boolean {
    const next = this.lines[1]
    const first = this.lines[0]?.index === index && !this.out.title && !bulleted
    const pieces = [...head, ...body]
    const plain = pieces.every((piece) => !piece.facts.length) && body.length === 1
    return (
      first &&
      plain &&
      !topicOf(saidBy(head)) &&
      next !== undefined &&
      (isSettings(next) || topicOf(next.text) !== null)
    )
  }

  private isHeading(line: Line, body: readonly Piece[]): boolean {
    if (line.bulleted) return false
    if (this.headed.has(line.index)) return true
    const worded = body.filter(isWorded)
    const words = body.flatMap((piece) => piece.words)
    const facts = body.flatMap((piece) => piece.facts)
    const topic = topicIn(body)
    const extra = extraWords(words, topic)
    if (worded.length > 1 && !(topic && extra <= 2)) return false
    const strong =
      facts.some(({ kind }) => STRONG.has(kind) && kind !== 'noRest') || (has(facts, 'work') && has(facts, 'rest'))
    if (topic === 'break') return false
    if (topic && extra === 0) return true
    if (topic && (strong || has(facts, 'work'))) return true
    return worded.length === 1 && strong && body[0] !== undefined && isWorded(body[0]) && !startsWithNumber(body[0])
  }

  /** Words before a colon. */
  private head(pieces: readonly Piece[], line: Line, body: readonly Piece[]): void {
    if (!pieces.length) return
    const text = pieces
      .map(({ text: said }) => said)
      .filter(Boolean)
      .join(' ')
    const facts = pieces.flatMap((piece) => piece.facts)
    const words = pieces.flatMap((piece) => piece.words)
    const topic = topicIn(pieces)
    const round = facts.find((fact) => fact.kind === 'roundNo')
    if (round?.kind === 'roundNo' && !pieces.some(isWorded)) {
      const table = body.every((piece) => !isWorded(piece))
      const block = table && this.open ? this.open : this.start(newBlock())
      block.round ??= table ? null : round.value
      mark(round.tokens, 'used', 'round')
      return this.settings(table ? pieces : pieces.filter((piece) => !piece.facts.includes(round)))
    }
    const stated = body.flatMap((piece) => piece.numbers).find(({ role }) => role === 'L')
    if (DURATION_HEAD.test(text) && stated && !this.out.promise) {
      this.out.promise = stated
      mark([stated], 'used', 'promise')
    }
    if (MINUTE_HEAD.test(text) || english.listHeads.test(text) || DURATION_HEAD.test(text)) {
      mark(words, 'kept', 'heading')
      mark(
        pieces.flatMap((piece) => piece.numbers),
        'kept',
        'heading',
      )
      return
    }
    if (!pieces.some(isWorded) && !topic) return this.settings(pieces)
    if (!this.out.title && !this.out.blocks.length && !topic && !facts.length && !body.length)
      return this.title(line, pieces)
    this.heading(pieces)
  }

  private heading(pieces: readonly Piece[]): void {
    const words = pieces.flatMap((piece) => piece.words)
    const topic = topicIn(pieces)
    const named = pieces.find((piece) => isWorded(piece) || topicOf(textOf(piece.words))) ?? pieces[0]
    // "Block 1", "PART 2": the number belongs to the name.
    const number = named?.numbers.find(({ role, from }) => role === 'N' && from >= (named.words[0]?.from ?? 0))
    const bare = (named?.words ?? []).map((word) => word.text).join(' ')
    const counted = topic !== 'emom' && number ? `${bare} ${number.text}` : null
    const keeps = counted ?? (topic === 'block' ? bare : textOf(named?.words ?? []))
    const block = this.start(newBlock(topic, keeps))
    mark(words, 'used', 'heading')
    if (number && topic !== 'emom') mark([number], 'used', 'heading')
    this.settings(pieces)
    block.numbers = block.numbers.filter((token) => token !== number || topic === 'emom')
  }

  /** Takes the numbers of pieces for the open block. */
  private settings(pieces: readonly Piece[]): void {
    const facts = pieces.flatMap((piece) => piece.facts)
    const numbers = pieces.flatMap((piece) => piece.numbers)
    if (!facts.length && !numbers.length) return
    // After a warm-up that is only said to take so long, work and rest begin something else.
    const part = this.open?.topic === 'warmUp' || this.open?.topic === 'coolDown' || this.open?.topic === 'talk'
    if (part && has(facts, 'work') && has(facts, 'rest') && (this.open?.totals.length || this.open?.items.length))
      this.start(newBlock())
    const block = this.block()
    block.facts.push(...facts)
    for (const token of numbers)
      if (token !== this.out.promise) (token.role === 'L' ? block.totals : block.numbers).push(token)
  }

  private body(pieces: readonly Piece[], line: Line): void {
    const worded = pieces.filter(isWorded)
    const words = pieces.flatMap((piece) => piece.words)
    if (!worded.length) {
      const topic = topicOf(textOf(words))
      if (topic && topic !== 'break' && topic !== 'block' && !line.bulleted && !this.open?.items.length)
        return this.heading(pieces)
      mark(words, 'kept', 'word')
      const rests = pieces.flatMap((piece) => piece.facts)
      if (rests.length === 1 && rests[0]?.kind === 'rest' && this.open?.items.length) return this.rest(rests[0], pieces)
      return this.settings(pieces)
    }
    const items = this.items(pieces, line)
    const block = this.block()
    block.items.push(...items)
    for (const piece of this.later.splice(0)) this.heading([piece])
  }

  private rest(fact: Fact & { kind: 'rest' }, pieces: readonly Piece[]): void {
    const block = this.block()
    mark(
      pieces.flatMap((piece) => piece.words),
      'kept',
      'word',
    )
    const last = block.items.at(-1)
    const own = last?.restMs === null
    block.closing.push({ ms: fact, tokens: fact.tokens, own })
    if (last && own) Object.assign(last, { restMs: fact.low, restTokens: fact.tokens })
  }

  private items(pieces: readonly Piece[], line: Line): Item[] {
    const worded = pieces.filter(isWorded)
    const slashes = pieces.filter(({ mark: before }) => before === '/').length
    const lone = worded.length === 1
    const items: Item[] = []
    for (const piece of pieces) {
      const last = items.at(-1)
      if (!isWorded(piece)) {
        this.unworded(piece, last, lone)
        continue
      }
      const topic = wholeTopic(piece) ? topicOf(textOf(piece.words)) : null
      if (topic === 'block' || topic === 'talk' || topic === 'break') {
        mark(piece.words, 'kept', 'word')
        this.settings([piece])
        continue
      }
      if (topic) {
        this.heading([piece])
        continue
      }
      // "Plank - keep the hips low": what follows one move in a marked list is a note to it.
      if (last && piece.mark === '-' && line.bulleted && worded.length === 2 && !piece.numbers.length) {
        mark(piece.words, 'kept', 'remark')
        last.note = [last.note, piece.words.map(({ text }) => text).join(' ')].filter(Boolean).join('; ')
        this.own(last, { ...piece, aside: [] })
        continue
      }
      const part = partOf(piece)
      if (last && (piece.mark === '+' || piece.mark === '&' || (piece.mark === '/' && slashes === 1))) {
        last.parts = [...last.parts, part]
        last.joiner = piece.mark
        this.own(last, piece)
        continue
      }
      const item: Item = {
        ...{ parts: [part], joiner: '' as const, workMs: null, restMs: null, restTokens: [], sets: null, facts: [] },
        ...{ then: piece.mark === 'T' || piece.words[0]?.role === 'T', note: '', bulleted: line.bulleted },
      }
      this.own(item, piece)
      items.push(item)
    }
    return items
  }

  /** Numbers without words: a move's own where the line has but one move, else the block's. */
  private unworded(piece: Piece, last: Item | undefined, lone: boolean): void {
    const topic = topicOf(textOf(piece.words))
    if (topic === 'warmUp' || topic === 'coolDown') return void this.later.push(piece)
    mark(piece.words, 'kept', 'word')
    if (last && lone) return this.own(last, piece)
    const rest = piece.facts.length === 1 ? piece.facts[0] : undefined
    if (last && rest?.kind === 'rest') Object.assign(last, { restMs: rest.low, restTokens: rest.tokens })
    else this.settings([piece])
  }

  /** What a piece says of its move; the rest is the block's. */
  private own(item: Item, piece: Piece): void {
    const block = this.block()
    const note = piece.aside.map(({ text }) => text).join(' ')
    if (note) {
      const swap = /^round (\d+)/i.exec(note)
      mark(piece.aside, swap ? 'used' : 'kept', swap ? 'swap' : 'remark')
      item.note = [item.note, note].filter(Boolean).join('; ')
    }
    for (const fact of piece.facts) {
      if (fact.kind === 'rest' && item.restMs === null)
        Object.assign(item, { restMs: fact.low, restTokens: fact.tokens })
      else if (fact.kind === 'work' && item.workMs === null && !piece.facts.some(({ kind }) => kind === 'rounds')) {
        item.workMs = fact.low
        item.facts = [...item.facts, fact]
      } else if (fact.kind === 'setsOfReps') {
        item.sets = fact.low
        item.parts = item.parts.map((part, at) => (at ? part : { ...part, reps: fact.reps }))
        item.facts = [...item.facts, fact]
      } else if (fact.kind === 'reps') {
        item.parts = item.parts.map((part, at) => (at === item.parts.length - 1 ? { ...part, reps: fact.low } : part))
        item.facts = [...item.facts, fact]
      } else if (
        fact.kind === 'rounds' &&
        fact.unit === 'set' &&
        fact.low === fact.high &&
        piece.facts.length < 3 &&
        isWorded(piece)
      ) {
        item.sets = fact.low
        item.facts = [...item.facts, fact]
      } else if (OWN.has(fact.kind) || fact.kind === 'roundNo') item.facts = [...item.facts, fact]
      else block.facts.push(fact)
    }
    for (const token of piece.numbers) {
      if (token.role === 'L') {
        if (item.workMs === null) {
          item.workMs = token.low
          mark([token], 'used', 'work')
        } else block.totals.push(token)
      }
    }
  }
}

/** All that pieces say, the words of their numbers too. */
const saidBy = (pieces: readonly Piece[]): string =>
  pieces
    .flatMap(({ words, facts }) => [...words, ...facts.flatMap(({ tokens }) => tokens)])
    .sort((one, other) => one.from - other.from)
    .filter(({ role }) => role !== 'L')
    .map(({ text }) => text)
    .join(' ')

/** What pieces are about: by their words, or by what their numbers count ("5 tabatas"). */
function topicIn(pieces: readonly Piece[]): Topic | null {
  const words = topicOf(pieces.flatMap((piece) => piece.words.map(({ text }) => text)).join(' '))
  if (words && words !== 'block') return words
  const all = topicOf(saidBy(pieces))
  return all && all !== 'block' && all !== 'break' ? all : words
}

/** Nothing but the topic's own words. */
const wholeTopic = ({ words }: Piece): boolean => {
  const said = coreOf(words)
    .map(({ text }) => text)
    .join(' ')
  return english.topics.some(([, pattern]) => said.replace(pattern, '').trim() === '')
}

const has = (facts: readonly Fact[], kind: Fact['kind']): boolean => facts.some((fact) => fact.kind === kind)
const startsWithNumber = ({ numbers, words, facts }: Piece): boolean =>
  [...numbers, ...facts.flatMap(({ tokens }) => tokens)].some((token) => token.from < (words[0]?.from ?? 0))

/** A line that says how long or how often, and names no move. */
const saysLengths = ({ parts }: Line): boolean =>
  !parts.flat().some(isWorded) && parts.flat().some(({ facts }) => has(facts, 'work') || has(facts, 'rounds'))

/** A line of numbers only, that says how long work lasts or how often. */
function isSettings(line: Line): boolean {
  const pieces = line.parts.flat()
  const facts = pieces.flatMap((piece) => piece.facts)
  return (
    !pieces.some(isWorded) &&
    !topicOf(saidBy(pieces)) &&
    facts.some(({ kind }) => kind === 'work' || kind === 'rounds' || kind === 'pairs')
  )
}

function partOf(piece: Piece): Item['parts'][number] {
  const core = coreOf(piece.words)
  const numbers = piece.numbers.filter(({ role }) => role === 'N')
  const spelled = numbers.filter((token) => token.spelled)
  const counted = numbers.find((token) => !token.spelled)
  // A number in words that nothing counts is part of the name: "One arm row".
  const named = [...core, ...spelled].sort((one, other) => one.from - other.from)
  const label = named
    .map(({ text }) => text)
    .join(' ')
    .replace(/\s+([’'])/g, '$1')
  mark(named, 'used', 'move')
  if (counted) mark([counted], 'used', 'reps')
  return { label: label.charAt(0).toUpperCase() + label.slice(1), reps: counted?.low ?? null, tokens: named }
}
