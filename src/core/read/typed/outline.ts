// The lines of a typed plan as a title and blocks: what each says of its lengths and rounds, and the moves that stand
// under it. Which format a block means is decided later.
import { mark, newBlock, type Block, type Item, type Outline } from './block'
import type { Fact } from './facts'
import { addNote, newItem, partOf, takeOwn } from './items'
import { coreOf, extraWords, isWorded, lineOf, LONGEST_LINE, textOf, topicOf, type Line, type Piece } from './lines'
import { has, isSettings, saidBy, saysLengths, startsWithNumber, topicIn, wholeTopic } from './pieces'
import { FEWEST_STAMPS, isStamp } from './stamps'
import type { Token } from './tokens'
import { english } from './words/en'

const wordsOf = (pieces: readonly Piece[]): Token[] => pieces.flatMap((piece) => piece.words)

/** Facts that make a line a heading or a setting, wherever it stands. */
const STRONG: ReadonlySet<Fact['kind']> = new Set([
  ...(['between', 'rounds', 'pairs', 'lengths', 'restIsWork', 'step', 'slot', 'up', 'burstCount'] as const),
  ...(['noRest', 'moveCount', 'stationByStation', 'restAfterRound', 'roundNo', 'start'] as const),
])

const MINUTE_HEAD = /^(?:(?:odd|even)(?: minutes?)?|minutes?(?: \d+)?|min(?: \d+)?)$/i
const DURATION_HEAD = /^(?:total |)(?:duration|length|time|total)$/i

export class OutlineReader {
  private readonly out: Outline = { title: '', promise: null, blocks: [], tokens: [] }
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
    if (this.aside(line)) return
    const heads = line.parts.slice(0, -1)
    const body = line.parts.at(-1) ?? []
    if (!heads.length) return this.plainLine(line, body, at)
    if (heads.length === 1 && heads[0] && this.isColonTitle(line, heads[0], body))
      return this.title(line, [...heads[0], ...body])
    for (const head of heads) this.head(head, line, body)
    if (body.length) this.body(body, line)
  }

  /** A line without a colon. */
  private plainLine(line: Line, body: readonly Piece[], at: number): void {
    if (this.isTitle(line, body, at)) return this.title(line, body)
    if (this.isNote(line, body)) {
      const strong = (fact: Fact): boolean => STRONG.has(fact.kind)
      this.settings(body.map((piece) => ({ ...piece, facts: piece.facts.filter(strong), numbers: [] })))
      return this.remark(line)
    }
    if (this.isPreface(line, body)) {
      mark(wordsOf(body), 'kept', 'word')
      return this.settings(body)
    }
    if (this.isHeading(line, body)) this.heading(body)
    else if (body.length) this.body(body, line)
  }

  /** Takes a line that is of no block: a link, gear, a list of chapters, a part that is elsewhere, a break. */
  private aside(line: Line): boolean {
    const link = line.tokens.find(({ role, text }) => role === '@' && !text.startsWith('#'))
    const topic = topicOf(line.tokens.map(({ text }) => text).join(' '))
    const ownWay = line.parts.flat().some(({ facts }) => has(facts, 'ownWay'))
    if ((link || ownWay) && (topic === 'warmUp' || topic === 'coolDown')) this.outside(line, topic, link?.text ?? '')
    else if (link || line.tokens.every(({ role }) => role === '@')) this.remark(line)
    else if (english.gear.test(line.text.trim()) || (this.stamped && isStamp(line.text))) this.remark(line)
    else if (this.isBreak(line)) this.pause(line)
    else return false
    return true
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
    const plain = pieces.every((piece) => !piece.facts.length)
    if (!first || !plain || topicOf(saidBy(head)) || !next) return false
    return (
      english.gear.test(next.text.trim()) || (body.length === 1 && (isSettings(next) || topicOf(next.text) !== null))
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
    if (!pieces.length || this.roundHead(pieces, body) || this.emptyHead(pieces, body)) return
    const topic = topicIn(pieces)
    if (!pieces.some(isWorded) && !topic) return this.settings(pieces)
    const first = !this.out.title && !this.out.blocks.length
    const plain = pieces.every(({ facts }) => !facts.length)
    if (first && plain && !topic && !body.length) return this.title(line, pieces)
    this.heading(pieces)
  }

  /** "Round 2:" before lengths is a row of a table, before moves a list of its own. */
  private roundHead(pieces: readonly Piece[], body: readonly Piece[]): boolean {
    const round = pieces.flatMap((piece) => piece.facts).find((fact) => fact.kind === 'roundNo')
    if (round?.kind !== 'roundNo' || pieces.some(isWorded)) return false
    const table = body.every((piece) => !isWorded(piece))
    if (!table || !this.open) this.start(newBlock())
    mark(round.tokens, 'used', 'round')
    this.settings(table ? pieces : pieces.filter((piece) => !piece.facts.includes(round)))
    return true
  }

  /** "The moves:", "Duration:", "Minute 1:" say nothing that what follows does not. */
  private emptyHead(pieces: readonly Piece[], body: readonly Piece[]): boolean {
    const text = pieces
      .map(({ text: said }) => said)
      .filter(Boolean)
      .join(' ')
    const duration = DURATION_HEAD.test(text)
    if (!duration && !MINUTE_HEAD.test(text) && !english.listHeads.test(text)) return false
    const stated = body.flatMap((piece) => piece.numbers).find(({ role }) => role === 'L')
    if (duration && stated && !this.out.promise) {
      this.out.promise = stated
      mark([stated], 'used', 'promise')
    }
    mark([...wordsOf(pieces), ...pieces.flatMap((piece) => piece.numbers)], 'kept', 'heading')
    return true
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
    block.head.push(...words, ...(number && topic !== 'emom' ? [number] : []))
    mark(block.head, 'used', 'heading')
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
    const dashes = pieces.filter(({ mark: before }) => before === '-').length
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
      if (last && piece.mark === '-' && line.bulleted && dashes === 1 && !piece.numbers.length) {
        mark(piece.words, 'kept', 'remark')
        addNote(last, piece.words.map(({ text }) => text).join(' '))
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
      const item = newItem(piece, line.bulleted)
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
    const { facts, totals } = takeOwn(item, piece)
    const block = this.block()
    block.facts.push(...facts)
    block.totals.push(...totals)
  }
}
