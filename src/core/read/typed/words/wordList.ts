// What the reader of typed plans has to know of a language. A new language is a file beside `en.ts`.

/**
 * The part that a word can play in a plan, one letter each, so that a line is a string of parts in which patterns can
 * be looked for. Numbers: `L` length, `N` number, `1` ordinal, `K` load. The clock: `w` work, `r` rest, `n` no, `0`
 * none between, `b` between, `C` to change, `>` before the next one, `Y` slot, `q` same. What is counted: `o` round,
 * `s` set, `t` times, `x` the sign for it, `k` block, `m` move, `i` interval, `p` rep, `e` each, `F` the name of a
 * format, `M` more, `Z` once more. Growing: `A` by what follows, `B` by what stands before, `z` begins, `U` up, `D`
 * down, `^` up and down. Sides: `E` each side, `H` swap halfway, `V` in turn by round, `v` in turn by rep, `f` right
 * first, `l` left, `R` right, `[` and `]` the same as phrases. Others: `u` for what is left, `y` on one's own, `j` for
 * whom, `T` then, `@` link or tag, `g` words that only hold others together, `W` any other word. Marks stand for
 * themselves.
 */
export type Role = string

/** Parts of a session, and formats, that a heading can name. */
export const TOPICS = [
  'warmUp',
  'coolDown',
  'talk',
  'break',
  'tabata',
  'emom',
  'amrap',
  'ladder',
  'pyramid',
  'finisher',
  'pairs',
  'block',
] as const
export type Topic = (typeof TOPICS)[number]

export interface WordList {
  /** Several words that play one part; the first that fits is taken. */
  phrases: readonly (readonly [pattern: string, role: Role, value?: number])[]
  /** Single words by their part. */
  words: Readonly<Record<Role, string>>
  numbers: Readonly<Record<string, number>>
  ordinals: Readonly<Record<string, number>>
  /** Milliseconds of one, by how the unit is written. */
  units: Readonly<Record<string, number>>
  /** What names a topic, tried in this order. */
  topics: readonly (readonly [Topic, RegExp])[]
  /** What a line about things to fetch, or addressed to viewers, holds: never a move. */
  gear: RegExp
  /** Where, within a line, what is needed begins or ends: "20 minutes, equipment: one jug". Global. */
  gearWithin: RegExp
  notes: RegExp
  /** "Repeat block 1". */
  repeats: RegExp
  /** "Finish with ...": the word that names the block. */
  ends: RegExp
  /** "Alternate squats and dips": two moves, and not one name. */
  alternates: RegExp
  /** "Minute 1 -" before what is done in it. */
  minuteMark: RegExp
  /** Headings before a list that say nothing of it. */
  listHeads: RegExp
  /** Ways of naming a block that can be referred to. */
  sameAs: RegExp
}
