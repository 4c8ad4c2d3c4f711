// What a line of a typed plan is for, seen from where it stands: title, note, preface, heading, or moves. Nothing is
// changed here.
import type { Block } from './block'
import type { Fact } from './facts'
import { extraWords, isWorded, textOf, topicOf, type Line, type Piece } from './lines'
import {
  has,
  isLength,
  isLettered,
  isList,
  isSettings,
  saidBy,
  saysLengths,
  saysSide,
  shapeOf,
  startsWithNumber,
  topicIn,
} from './pieces'
import type { Token } from './tokens'
import { english } from './words/en'
import type { Topic } from './words/wordList'

/** What is known where a line is read. */
export interface Around {
  lines: readonly Line[]
  /** Indices of lines that are headings because settings follow them. */
  headed: ReadonlySet<number>
  titled: boolean
  open: Block | null
}

/** Facts that make a line a heading or a setting, wherever it stands. */
export const STRONG: ReadonlySet<Fact['kind']> = new Set([
  ...(['between', 'rounds', 'pairs', 'lengths', 'restIsWork', 'step', 'slot', 'up', 'burstCount'] as const),
  ...(['noRest', 'moveCount', 'stationByStation', 'restAfterRound', 'roundNo', 'start'] as const),
])

/** Lines that are headings because a line of settings follows each; one alone may be a title. */
export function headingsIn(lines: readonly Line[]): ReadonlySet<number> {
  const found = lines.flatMap((line, at) => {
    const next = lines[at + 1]
    const [pieces = [], ...more] = line.parts
    // A total may stand beside the name: "Lower body - 6 min".
    const plain =
      !line.bulleted &&
      !more.length &&
      pieces.filter(isWorded).length === 1 &&
      pieces.every((piece) => !piece.facts.length && piece.numbers.every(isTotal))
    const short = plain && (pieces[0]?.words.length ?? 9) <= 4
    const settled = next && isSettings(next) && !saysSide(next) && !isLastCount(next, lines)
    return short && settled ? [line.index] : []
  })
  return new Set(found.length > 1 || (found[0] ?? 0) > (lines[0]?.index ?? 0) ? found : [])
}

/** The first line names the plan, unless it says what is to be done. */
export function isTitle(line: Line, body: readonly Piece[], around: Around): boolean {
  if (!mayBeTitle(line, around)) return false
  const facts = body.flatMap((piece) => piece.facts)
  if (facts.some(({ kind }) => kind !== 'same' && kind !== 'roundNo')) return false
  const counts = body.filter(startsWithCount)
  if (counts.length > 1 || isOneOfAList(around.lines)) return false
  const topic = topicIn(body)
  if (topic === 'talk' && body.some(({ numbers }) => numbers.length)) return false
  // "Stretch and breathe - 5 minutes" over moves of which no length is said.
  if (isPart(topic) && body.some(saysMinutes) && !around.lines.some(saysWork)) return false
  const words = body.flatMap((piece) => piece.words)
  const next = around.lines[1]
  if (!extraWords(words, topic) && !facts.length) return minutesFirst(body) && next !== undefined && beginsAPlan(next)
  return body.some(isWorded) && !startsWithShortLength(body[0])
}

const mayBeTitle = (line: Line, { lines, titled, headed }: Around): boolean =>
  lines[0] === line &&
  !titled &&
  !line.bulleted &&
  !headed.has(line.index) &&
  !(english.notes.test(line.text) && /[.!?]\s*$/.test(line.text))

/** "Intro and safety, 2 min", "Stretch and breathe - 5 minutes": a part that has minutes and few words. */
const isLongPart = (topic: Topic, extra: number, body: readonly Piece[]): boolean =>
  extra <= 2 &&
  (topic === 'talk' ? body.some(({ numbers }) => numbers.length) : isPart(topic) && body.some(saysMinutes))

/** What stands under a title. */
const beginsAPlan = (line: Line): boolean =>
  saysLengths(line) || topicOf(line.text) !== null || english.gear.test(line.text.trim())

const isPart = (topic: Topic | null): boolean => topic === 'warmUp' || topic === 'coolDown'
/** "Twice!" at the end says how often all is done. */
const isLastCount = (line: Line, lines: readonly Line[]): boolean =>
  line === lines.at(-1) && line.parts.flat().every(({ facts }) => facts.every(({ kind }) => kind === 'rounds'))

const isTotal = ({ role, low }: Token): boolean => role === 'L' && low >= 120_000
const saysMinutes = ({ numbers }: Piece): boolean => numbers.some(isTotal)
const saysWork = ({ parts }: Line): boolean => parts.flat().some(({ facts }) => has(facts, 'work'))

const startsWithCount = (piece: Piece): boolean =>
  isWorded(piece) && startsWithNumber(piece) && piece.numbers[0]?.role === 'N'

function startsWithShortLength(piece: Piece | undefined): boolean {
  const [length] = piece?.numbers ?? []
  return piece !== undefined && length?.role === 'L' && length.low < 180_000 && startsWithNumber(piece)
}

/** A first line built like one soon after it, numbers in the same places, is the first of a list. */
function isOneOfAList(lines: readonly Line[]): boolean {
  const [first, second, ...others] = lines.slice(0, 5).map(shapeOf)
  if (first === undefined || second === undefined) return false
  return /[NL_]/.test(first) ? [second, ...others].includes(first) : isLength(second) && others[0] === first
}

/** "20 MINUTE TABATA". */
function minutesFirst(body: readonly Piece[]): boolean {
  const [length] = body[0]?.numbers ?? []
  const [word] = body[0]?.words ?? []
  return length !== undefined && word !== undefined && length.role === 'L' && length.from < word.from
}

/** "Deck Hours 21: roof circuit". */
export function isColonTitle(line: Line, head: readonly Piece[], body: readonly Piece[], around: Around): boolean {
  const { lines, titled } = around
  const next = lines[1]
  if (lines[0] !== line || titled || line.bulleted || !next || topicOf(saidBy(head))) return false
  if ([...head, ...body].some((piece) => piece.facts.length) || body.some(startsWithCount)) return false
  return english.gear.test(next.text.trim()) || (body.length === 1 && (isSettings(next) || topicOf(next.text) !== null))
}

/** Words to viewers, and no part of what is done. */
export function isNote(line: Line, body: readonly Piece[], around: Around): boolean {
  const { open, headed } = around
  const words = body.flatMap((piece) => piece.words)
  const said = words.filter(({ role }) => role === 'W').length
  if ((said && isToViewers(line, body)) || isSubtitle(line, body, around)) return true
  const called = /[!?]/.test(line.tokens.at(-1)?.role ?? '')
  if (line.bulleted || (isList(body) && !called)) return false
  const facts = body.flatMap((piece) => piece.facts)
  if (said > 7 && !facts.some(({ kind }) => STRONG.has(kind))) return true
  const numbers = facts.length + body.flatMap((piece) => piece.numbers.filter(({ spelled }) => !spelled)).length
  if (numbers || !said) return false
  if (said >= 2 && endsAsSentence(line, words.length)) return true
  // Where moves stand in a marked list, a bare line after it is none.
  const listed = open?.items.some(({ bulleted }) => bulleted) ?? false
  return listed && !topicOf(textOf(words)) && !headed.has(line.index)
}

/** Thanks, links and the like; a warm-up "in the video" is none of it. */
function isToViewers(line: Line, body: readonly Piece[]): boolean {
  const part = isPart(topicOf(line.text)) && body.some(saysMinutes)
  return english.notes.test(line.text) && !line.bulleted && !part
}

/** Words alone under the title, before a part of the session. */
function isSubtitle(line: Line, body: readonly Piece[], { lines, titled, open, headed }: Around): boolean {
  const next = lines[2]
  const bare = body.every((piece) => !piece.facts.length && !piece.numbers.length)
  if (!titled || open || lines[1] !== line || !next || !bare || headed.has(line.index)) return false
  return !topicOf(line.text) && isPart(topicOf(next.text))
}

function endsAsSentence({ tokens }: Line, words: number): boolean {
  const last = tokens.at(-1)?.role
  return last === '!' || last === '?' || (last === '.' && words > 2)
}

/** "4 laps of the boat, 35 on, 15 off": numbers with a few words to them, before the moves. */
export function isPreface(line: Line, body: readonly Piece[], { lines, open }: Around): boolean {
  const facts = body.flatMap((piece) => piece.facts)
  const [worded, ...more] = body.filter(isWorded)
  if (line.bulleted || lines.at(-1) === line || !worded || more.length || open?.items.length) return false
  const rests = has(facts, 'rest') || has(facts, 'noRest')
  const counts = has(facts, 'rounds') || worded.numbers.some(isTotal)
  return has(facts, 'work') && rests && counts && startsWithNumber(worded)
}

export function isHeading(line: Line, body: readonly Piece[], { lines, headed }: Around): boolean {
  if (line.bulleted) return isLettered(line)
  if (headed.has(line.index)) return true
  return !isLikeItsNeighbour(line, lines) && headsMoves(body)
}

/** Names a topic, or says how a block is done in few words. */
function headsMoves(body: readonly Piece[]): boolean {
  const worded = body.filter(isWorded)
  const topic = topicIn(body)
  const extra = extraWords(
    body.flatMap((piece) => piece.words),
    topic,
  )
  if (topic === 'break' || (worded.length > 1 && !(topic && extra <= 2))) return false
  const facts = body.flatMap((piece) => piece.facts)
  const strong =
    facts.some(({ kind }) => STRONG.has(kind) && kind !== 'noRest') || (has(facts, 'work') && has(facts, 'rest'))
  if (topic && (extra === 0 || strong || has(facts, 'work') || isLongPart(topic, extra, body))) return true
  const [first] = body
  return worded.length === 1 && strong && first !== undefined && isWorded(first) && !startsWithNumber(first)
}

/** Two lines one after another that are built alike, numbers in the same places: rows of a list. */
function isLikeItsNeighbour(line: Line, lines: readonly Line[]): boolean {
  const at = lines.indexOf(line)
  const shape = shapeOf(line)
  const near = [lines[at - 1], lines[at + 1]].map((one) => (one ? shapeOf(one) : ''))
  return /w.*_/.test(shape) && near.includes(shape) && !topicOf(line.text)
}
