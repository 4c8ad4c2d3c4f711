// What can be asked of the pieces of a line without deciding what the line is for.
import type { Fact } from './facts'
import { coreOf, isWorded, topicOf, type Line, type Piece } from './lines'
import { english } from './words/en'
import type { Topic } from './words/wordList'

/** All that pieces say, the words of their numbers too. */
export const saidBy = (pieces: readonly Piece[]): string =>
  pieces
    .flatMap(({ words, facts }) => [...words, ...facts.flatMap(({ tokens }) => tokens)])
    .sort((one, other) => one.from - other.from)
    .filter(({ role }) => role !== 'L')
    .map(({ text }) => text)
    .join(' ')

/** What pieces are about: by their words, or by what their numbers count ("5 tabatas"). */
export function topicIn(pieces: readonly Piece[]): Topic | null {
  const words = topicOf(pieces.flatMap((piece) => piece.words.map(({ text }) => text)).join(' '))
  if (words && words !== 'block') return words
  const all = topicOf(
    saidBy(pieces.map((piece) => ({ ...piece, facts: piece.facts.filter(({ kind }) => kind !== 'between') }))),
  )
  return all && all !== 'block' && all !== 'break' ? all : words
}

/** Nothing but the topic's own words. */
export const wholeTopic = ({ words }: Piece): boolean => {
  const said = coreOf(words)
    .map(({ text }) => text)
    .join(' ')
  return english.topics.some(([, pattern]) => said.replace(pattern, '').trim() === '')
}

export const has = (facts: readonly Fact[], kind: Fact['kind']): boolean => facts.some((fact) => fact.kind === kind)
export const startsWithNumber = ({ numbers, words, facts }: Piece): boolean =>
  [...numbers, ...facts.flatMap(({ tokens }) => tokens)].some((token) => token.from < (words[0]?.from ?? 0))

/** "Split squat: 4 sets of 8": a move and its reps, though a colon stands between. */
export function isCountedMove(head: readonly Piece[], body: readonly Piece[]): boolean {
  const [piece, ...more] = head
  if (!piece || more.length || !isWorded(piece) || piece.facts.length || topicIn(head) || body.some(isWorded))
    return false
  return body.some(({ facts }) => has(facts, 'setsOfReps') || has(facts, 'reps'))
}

/** How a line is built: `w` for words, `L` and `N` for numbers, `_` for what says something of the clock. */
export const shapeOf = ({ parts }: Line): string =>
  parts
    .flat()
    .map((piece) => {
      const at = piece.words[0]?.from ?? 0
      const numbers = piece.numbers.map(({ role, from }) => `${from < at ? '<' : '>'}${role}`)
      return `${isWorded(piece) ? 'w' : ''}${numbers.join('')}${'_'.repeat(piece.facts.length)}`
    })
    .join(' ')

export const saysSide = ({ parts }: Line): boolean =>
  parts.flat().some(({ facts }) => has(facts, 'left') || has(facts, 'right'))

/** A length and nothing else. */
export const isLength = (shape: string): boolean => shape === '>L'

/** "Squats: 45s": a move and its length, if more than one line is built so. */
export function isTimedMove({ parts, bulleted }: Line): boolean {
  const [[piece, ...beside] = [], [length, ...others] = [], ...more] = parts
  if (!piece || !length || beside.length || others.length || more.length || piece.facts.length) return false
  const [token, ...rest] = length.numbers
  const timed = !isWorded(length) && !rest.length && token?.role === 'L' && token.low <= 300_000
  return timed && isWorded(piece) && !bulleted && !topicIn([piece])
}

/** Three or more names, each short: no sentence, however many words. */
export const isList = (pieces: readonly Piece[]): boolean => {
  const worded = pieces.filter(isWorded)
  return worded.length >= 3 && worded.every(({ words }) => words.length <= 4)
}

/** "A) 45/15, 3 rounds": a letter and numbers head what follows. */
export const isLettered = (line: Line): boolean =>
  /^[A-Ha-h]\d?[.):]?$/.test(line.bullet?.text ?? '') && isSettings(line)

export const isMinute = ({ bullet }: Line): boolean => english.minuteMark.test(`${bullet?.text ?? ''} .`)

/** A line that says how long or how often, and names no move. */
export const saysLengths = ({ parts }: Line): boolean =>
  !parts.flat().some(isWorded) && parts.flat().some(({ facts }) => has(facts, 'work') || has(facts, 'rounds'))

/** A line of numbers only, that says how long work lasts or how often. */
export function isSettings(line: Line): boolean {
  const pieces = line.parts.flat()
  const facts = pieces.flatMap((piece) => piece.facts)
  return (
    !pieces.some(isWorded) &&
    !topicOf(saidBy(pieces)) &&
    facts.some(({ kind }) => kind === 'work' || kind === 'rounds' || kind === 'pairs')
  )
}
