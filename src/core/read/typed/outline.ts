// The lines of a typed plan as a title and blocks: what each says of its lengths and rounds, and the moves that stand
// under it. Which format a block means is decided later.
import { mark, newBlock, type Block, type Item, type Outline } from './block'
import type { Fact } from './facts'
import { addNote, newItem, partOf, standsAlone, takeOwn } from './items'
import { coreOf, isWorded, linesOf, pieceOf, textOf, topicOf, topicsOf, type Line, type Piece } from './lines'
import { has, isCountedMove, isTimedMove, isLength, isMinute, shapeOf, topicIn, wholeTopic } from './pieces'
import { headingsIn, isColonTitle, isHeading, isNote, isPreface, isTitle, STRONG, type Around } from './roles'
import { holdsStamps, isStamp } from './stamps'
import type { Token } from './tokens'
import { english } from './words/en'

const wordsOf = (pieces: readonly Piece[]): Token[] => pieces.flatMap((piece) => piece.words)

const CLOCK: ReadonlySet<Fact['kind']> = new Set(['work', 'rest', 'between', 'rounds', 'pairs', 'lengths', 'noRest'])

const MINUTE_HEAD = /^(?:(?:odd|even)(?: minutes?)?|minutes?(?: \d+)?|min(?: \d+)?)$/i
/** "Superset A". */
const LETTERED = / [A-H]$/
const DURATION_HEAD = /^(?:total |)(?:duration|length|time|total)$/i

/** A block that a line heads without words that name a topic. */
const named = ({ text }: Line, pieces: readonly Piece[]): Block => {
  const said = text.replace(/[^\p{L}\d ].*$/u, '').trim()
  return newBlock(null, /^\p{L}/u.test(said) && pieces.length ? said : '')
}

/** Two names with a dash between, and no number. */
const hasOneDash = ({ parts }: Line): boolean => {
  const [pieces = [], ...more] = parts
  const [first, second, ...others] = pieces
  const plain = pieces.every((piece) => isWorded(piece) && !piece.numbers.length && !piece.facts.length)
  return !more.length && plain && first !== undefined && second?.mark === '-' && !others.length
}

export class OutlineReader {
  private readonly out: Outline = { title: '', promise: null, blocks: [], tokens: [] }
  private open: Block | null = null
  private lines: Line[] = []
  private headed: ReadonlySet<number> = new Set()
  /** The text holds a list of chapters among other things: the description's, not the plan's. */
  private stamped = false
  /** More than one line is a move and what is said of it: "Plank - keep the hips low". */
  private dashed = false
  /** Parts that a line names after its moves: "then 2 min stretch". */
  private readonly later: Piece[] = []

  read(texts: readonly string[], title: string): Outline {
    this.out.title = title
    const lines = linesOf(texts)
    this.lines = lines.flatMap(({ line }) => line ?? [])
    this.headed = headingsIn(this.lines)
    this.stamped = holdsStamps(texts)
    this.dashed = this.lines.filter(hasOneDash).length > 1
    for (const { line, text } of lines) {
      if (!line) {
        if (text.trim()) this.block().unread.push(text)
        continue
      }
      this.out.tokens.push(...(line.bullet ? [line.bullet] : []), ...line.tokens)
      this.line(line)
    }
    this.headAsMove()
    return this.out
  }

  /** "Side plank - 3 sets of 30 s" at the end is no heading: nothing stands under it. */
  private headAsMove(): void {
    const last = this.out.blocks.at(-1)
    const [total] = last?.totals ?? []
    if (!last?.head.length || last.items.length || last.topic !== null || !has(last.facts, 'rounds') || !total) return
    last.items.push({ ...newItem(pieceOf(last.head), false), workMs: total.low })
    mark([total], 'used', 'work')
    last.totals = last.totals.slice(1)
  }

  private get around(): Around {
    return { lines: this.lines, headed: this.headed, titled: this.out.title !== '', open: this.open }
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

  private line(line: Line): void {
    if (this.aside(line) || this.below(line)) return
    if (line.bullet && isMinute(line) && !this.minute(line)) return
    const heads = line.parts.slice(0, -1)
    const body = line.parts.at(-1) ?? []
    if (!heads.length) return this.plainLine(line, body)
    if (heads.length === 1 && heads[0] && isColonTitle(line, heads[0], body, this.around))
      return this.title(line, [...heads[0], ...body])
    if (
      heads.length === 1 &&
      heads[0] &&
      (isCountedMove(heads[0], body) || this.isTimedRow(line) || this.headsNothing(line, heads[0], body))
    )
      return this.body([...heads[0], ...body], line)
    heads.forEach((head, index) => {
      // "Tabata A: jacks, squats, Tabata B: ...": moves of one part, and the head of the next.
      const last = head.at(-1)
      if (index && last && head.length > 1 && topicIn([last]) && head.slice(0, -1).some(isWorded)) {
        this.body(head.slice(0, -1), line)
        this.head([last], line, body)
      } else this.head(head, line, body)
    })
    if (body.length) this.body(body, line)
  }

  /** "Squats and dips: 30 s on, 30 s off" in the last line: what stands before the colon is done. */
  private headsNothing(line: Line, head: readonly Piece[], body: readonly Piece[]): boolean {
    const plain = head.every(({ facts, numbers }) => !facts.length && !numbers.length) && head.some(isWorded)
    const settings = !body.some(isWorded) && body.some(({ facts }) => has(facts, 'work'))
    return line === this.lines.at(-1) && plain && settings && !topicIn(head)
  }

  private isTimedRow(line: Line): boolean {
    return isTimedMove(line) && this.lines.filter(isTimedMove).length > 1
  }

  /** A line without a colon. */
  private plainLine(line: Line, body: readonly Piece[]): void {
    const { around } = this
    if (isTitle(line, body, around)) return this.title(line, body)
    if (english.repeats.test(line.text) && this.repeat(line)) return
    if (isNote(line, body, around)) {
      const strong = (fact: Fact): boolean => STRONG.has(fact.kind)
      this.settings(body.map((piece) => ({ ...piece, facts: piece.facts.filter(strong), numbers: [] })))
      return this.remark(line)
    }
    if (isPreface(line, body, around)) {
      mark(wordsOf(body), 'kept', 'word')
      return this.settings(body)
    }
    if (isHeading(line, body, around)) this.heading(body, line)
    else if (body.length) this.body(body, line)
  }

  /** "Minute 2 - 12 squats": what is done in one of the minutes of a block. @returns whether anything is. */
  private minute(line: Line): boolean {
    const block = this.block()
    if (block.topic === null || block.topic === 'block') block.topic = 'emom'
    // A minute of rest has no place in such a block: it stays marked.
    return line.parts.flat().some(isWorded)
  }

  /** "Repeat part 1 and part 2": the same blocks once more. */
  private repeat({ tokens }: Line): boolean {
    const wanted = tokens.filter(({ role }) => role === 'N').map(({ low }) => low)
    const found = wanted.flatMap((number) => this.out.blocks.find(({ name }) => name.endsWith(` ${number}`)) ?? [])
    if (!found.length || found.length < wanted.length || !tokens.some(({ role }) => role === 'k')) return false
    for (const block of found) this.start({ ...block, items: block.items.map((item) => ({ ...item })), closing: [] })
    mark(tokens, 'used', 'same')
    this.open = null
    return true
  }

  /** A line all in brackets is a note to the move above it. */
  private below(line: Line): boolean {
    const last = this.open?.items.at(-1)
    const [, text] = /^\s*\(([^()]*)\)\s*$/.exec(line.text) ?? []
    if (!last || !text || line.parts.flat().some(({ facts }) => facts.length)) return false
    mark(line.tokens, 'kept', 'remark')
    addNote(last, text)
    return true
  }

  /** Takes a line that is of no block: a link, gear, a list of chapters, a part that is elsewhere, a break. */
  private aside(line: Line): boolean {
    const link = line.tokens.find(({ role, text }) => role === '@' && !text.startsWith('#'))
    const topic = topicOf(line.tokens.map(({ text }) => text).join(' '))
    const ownWay = line.parts.flat().some(({ facts }) => has(facts, 'ownWay'))
    if ((link || ownWay) && (topic === 'warmUp' || topic === 'coolDown')) this.outside(line, topic, link?.text ?? '')
    else if (link || line.tokens.every(({ role }) => role === '@')) this.remark(line, true)
    else if (english.gear.test(line.text.trim()) || (this.stamped && isStamp(line.text))) this.remark(line, true)
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
    const said = line.tokens.map(({ text }) => text).join(' ')
    // "Warm up and cool down on your own."
    const both = topicsOf(said).filter((one) => one === 'warmUp' || one === 'coolDown')
    for (const one of both.length > 1 ? both : [topic]) {
      const block = this.start(newBlock(one, both.length < 2 && /\p{L}/u.test(name) ? name : ''))
      block.link = link
      block.facts.push({ kind: 'ownWay', tokens: [] })
    }
    mark(line.tokens, 'used', topic)
    this.open = null
  }

  /** @param sure nothing in it can be meant for the clock. */
  private remark(line: Line, sure = false): void {
    // What a remark says of the clock is marked: it may be meant.
    const clock = line.parts.flat().flatMap(({ facts }) => facts.filter(({ kind }) => CLOCK.has(kind)))
    const doubted = new Set(sure ? [] : clock.flatMap(({ tokens }) => tokens))
    mark(
      line.tokens.filter((token) => token.fate !== 'used' && !doubted.has(token)),
      'kept',
      'remark',
    )
    ;(this.open ?? this.out.blocks.at(-1) ?? this.block()).remarks.push(line.text.trim())
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

  /** Words before a colon. */
  private head(pieces: readonly Piece[], line: Line, body: readonly Piece[]): void {
    if (!pieces.length || this.roundHead(pieces, body) || this.emptyHead(pieces, body)) return
    const topic = topicIn(pieces)
    const rests = topic === 'break' && !body.some((piece) => isWorded(piece) || piece.numbers.length)
    if (!pieces.some(isWorded) && (!topic || rests)) {
      if (this.startsAnother([...pieces, ...body.filter((piece) => !isWorded(piece))], line))
        this.start(named(line, pieces))
      return this.settings(pieces)
    }
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
    if (!table || !this.open) this.start(newBlock(null, table ? '' : `Round ${round.value}`))
    mark(round.tokens, 'used', 'round')
    this.settings(
      table ? pieces : pieces.map((piece) => ({ ...piece, facts: piece.facts.filter((fact) => fact !== round) })),
    )
    return true
  }

  /** "The moves:", "Duration:", "Minute 1:" say nothing that what follows does not. */
  private emptyHead(pieces: readonly Piece[], body: readonly Piece[]): boolean {
    const text = pieces
      .map(({ text: said }) => said)
      .filter(Boolean)
      .join(' ')
    const duration = DURATION_HEAD.test(text)
    const goesOn = this.open?.items.length && (this.open.topic === 'warmUp' || this.open.topic === 'coolDown')
    if (goesOn || pieces.some(({ facts }) => facts.length)) return false
    if (!duration && !MINUTE_HEAD.test(text) && !english.listHeads.test(text)) return false
    const stated = body.flatMap((piece) => piece.numbers).find(({ role }) => role === 'L')
    if (duration && stated && !this.out.promise) {
      this.out.promise = stated
      mark([stated], 'used', 'promise')
    }
    mark([...wordsOf(pieces), ...pieces.flatMap((piece) => piece.numbers)], 'kept', 'heading')
    return true
  }

  private heading(pieces: readonly Piece[], line: Line | null = null): void {
    const words = pieces.flatMap((piece) => piece.words)
    const topic = topicIn(pieces)
    const named = pieces.find((piece) => isWorded(piece) || topicOf(textOf(piece.words))) ?? pieces[0]
    // "Block 1", "PART 2": the number belongs to the name.
    const number = named?.numbers.find(({ role, from }) => role === 'N' && from >= (named.words[0]?.from ?? 0))
    const bare = (named?.words ?? []).map((word) => word.text).join(' ')
    const minutes = topic === 'emom' || topic === 'amrap'
    const counted = !minutes && number ? `${bare} ${number.text}` : null
    const letter = line?.bulleted ? line.bullet?.text.charAt(0) : undefined
    const keeps = letter ?? counted ?? (topic === 'block' || LETTERED.test(bare) ? bare : textOf(named?.words ?? []))
    const block = this.start(newBlock(topic, keeps))
    block.head.push(...words, ...(number && !minutes ? [number] : []))
    mark(block.head, 'used', 'heading')
    this.settings(pieces)
    block.numbers = block.numbers.filter((token) => token !== number || minutes)
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
    if (!pieces.some(isWorded)) return this.numbers(pieces, line)
    if (this.leavesPart(pieces, line) || this.comesAfter(pieces)) this.start(newBlock())
    const end = english.ends.exec(line.text)?.[1]
    if (end) this.start(newBlock(null, end))
    const items = this.items(pieces, line)
    const block = this.block()
    block.alternates ||= english.alternates.test(line.text)
    block.items.push(...items)
    for (const piece of this.later.splice(0)) this.heading([piece])
  }

  /** A line without a name in it. */
  private numbers(pieces: readonly Piece[], line: Line): void {
    const words = wordsOf(pieces)
    if (this.lengthBelow(pieces, line)) return
    const topic = topicOf(textOf(words))
    if (topic && topic !== 'break' && topic !== 'block' && !line.bulleted && !this.open?.items.length)
      return this.heading(pieces)
    mark(words, 'kept', 'word')
    if (this.startsAnother(pieces, line)) this.start(named(line, pieces))
    const rests = pieces.flatMap((piece) => piece.facts)
    if (rests.length === 1 && rests[0]?.kind === 'rest' && this.open?.items.length) return this.rest(rests[0], pieces)
    return this.settings(pieces)
  }

  /** "Then 2 min of breathing" after rounds of something else. */
  private comesAfter([first]: readonly Piece[]): boolean {
    const { open } = this
    const long = first?.numbers.some(({ role, low }) => role === 'L' && low >= 60_000) ?? false
    const then = first?.mark === 'T'
    return then && long && open !== null && open.items.length > 0 && has(open.facts, 'rounds')
  }

  /** "4 x (squat, row)" after a warm-up that is only said to take so long. */
  private leavesPart(pieces: readonly Piece[], { bulleted }: Line): boolean {
    const { open } = this
    const part = open?.topic === 'warmUp' || open?.topic === 'coolDown'
    const over = part && open.totals.length > 0 && !open.items.length
    return over && !bulleted && pieces.some(({ facts }) => has(facts, 'rounds'))
  }

  /** A length alone on the line below a move is the move's. */
  private lengthBelow(pieces: readonly Piece[], line: Line): boolean {
    const last = this.open?.items.at(-1)
    const [length] = pieces[0]?.numbers ?? []
    const above = last?.parts.at(-1)?.tokens[0]?.line
    const at = this.lines.indexOf(line)
    if (!last || !length || last.workMs !== null || length.low > 300_000 || !isLength(shapeOf(line))) return false
    if (above === undefined || this.lines[at - 1]?.index !== above) return false
    last.workMs = length.low
    mark([length], 'used', 'work')
    return true
  }

  /** "Round 2: 40/20" after the moves of round 1, or "Left leg (40 s each)". */
  private startsAnother(pieces: readonly Piece[], line: Line): boolean {
    const { bulleted } = line
    const facts = pieces.flatMap((piece) => piece.facts)
    const { open } = this
    const headed = line.parts.length > 1
    const side = (has(facts, 'left') || has(facts, 'right')) && (headed || has(facts, 'work'))
    if (side || !open?.items.length) return side && !bulleted
    const clock = has(facts, 'work') && (has(facts, 'rest') || has(facts, 'rounds'))
    const again = has(facts, 'roundNo') && has(open.facts, 'roundNo')
    return again || (clock && has(open.facts, 'work') && !has(facts, 'roundNo'))
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
    for (const whole of pieces) {
      const piece = this.withoutFormat(whole)
      const last = items.at(-1)
      if (!isWorded(piece)) {
        this.unworded(piece, last, lone)
        continue
      }
      if (this.namesNoMove(piece, items.length > 0)) continue
      // "Plank - keep the hips low": what follows one move in a marked list is a note to it.
      if (last && piece.mark === '-' && (line.bulleted || this.dashed) && dashes === 1 && !piece.numbers.length) {
        mark(piece.words, 'kept', 'remark')
        addNote(last, piece.words.map(({ text }) => text).join(' '))
        this.own(last, { ...piece, aside: [] })
        continue
      }
      const part = partOf(piece)
      const joins = piece.mark === '+' || piece.mark === '&' || (piece.mark === '/' && slashes === 1)
      const apart = piece.mark === '&' && english.alternates.test(line.text)
      if (last && joins && !apart && !standsAlone(piece, last, items.length)) {
        last.parts = [...last.parts, part]
        last.joiner = piece.mark as Item['joiner']
        this.own(last, piece)
        continue
      }
      const item = newItem(piece, line.bulleted)
      this.own(item, piece)
      items.push(item)
    }
    return items
  }

  /** Takes words that name a part of the session, or are said to viewers. */
  private namesNoMove(piece: Piece, follows: boolean): boolean {
    const topic = wholeTopic(piece) ? topicOf(textOf(piece.words)) : null
    if (topic === 'block' || topic === 'talk' || topic === 'break') {
      mark(piece.words, 'kept', 'word')
      this.settings([piece])
    } else if (topic) this.heading([piece])
    else if (follows && piece.words.length === 1 && english.notes.test(piece.text)) mark(piece.words, 'kept', 'remark')
    else return false
    return true
  }

  /** "As many rounds as possible of 10 squats": its first words name what the block is, and no move. */
  private withoutFormat(piece: Piece): Piece {
    const at = piece.words.findIndex(({ role }) => role !== 'g')
    const first = piece.words[at]
    const words = piece.words.slice(at + 1)
    if (first?.role !== 'F' || !words.length || topicOf(first.text) !== 'amrap') return piece
    mark([first], 'used', 'heading')
    this.block().topic ??= 'amrap'
    return { ...piece, words }
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
