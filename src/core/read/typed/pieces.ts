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
  const all = topicOf(saidBy(pieces))
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
