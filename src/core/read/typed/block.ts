// What the outline of a typed plan is made of: moves as they were typed, and the blocks they stand in.
import type { Weight } from '../../score/formats/station'
import type { Range } from '../../score/primitives'
import type { Fact } from './facts'
import type { Fate, Token } from './tokens'
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
  /** What is lifted. */
  weight: Weight | null
  /** The bounds of a length of its own, where that is all that was typed. */
  ranges: Readonly<Record<string, Range>>
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
  /** The words of its heading. */
  head: Token[]
  facts: Fact[]
  /** Lengths that stand alone: stated totals. */
  totals: Token[]
  /** Bare numbers beside a heading: "EMOM 12". */
  numbers: Token[]
  items: Item[]
  remarks: string[]
  unread: string[]
  link: string
  /** "Alternate: ...": its moves are done in turn. */
  alternates: boolean
  /** Rests on lines of their own; `own`: taken for that of the move before. */
  closing: { ms: { low: number; high: number }; tokens: readonly Token[]; own: boolean }[]
}

export interface Outline {
  title: string
  /** A length in the title. */
  promise: Token | null
  blocks: Block[]
  tokens: Token[]
}

export const mark = (tokens: Iterable<Token>, fate: Fate, as: string): void => {
  for (const token of tokens) Object.assign(token, { fate, as })
}

export const newBlock = (topic: Topic | null = null, name = ''): Block => ({
  ...{ topic, name, head: [], facts: [], totals: [], numbers: [], items: [], remarks: [], unread: [], link: '' },
  ...{ closing: [], alternates: false },
})
