// What the reader of typed plans makes sections with: the numbers of a block, its moves, and how sure a meaning is.
import { likelyIn, type Range } from '../../score/primitives'
import { bareSection, type FormatName, type Section, type SectionOf } from '../../score/formats'
import type { Station } from '../../score/formats/station'
import type { SideRule } from '../../score/postures'
import { clipped } from '../../text'
import { mark, type Item } from './block'
import type { Amount, Settled } from './settled'
import { stationsOf } from './stations'

export interface Meaning {
  sections: Section[]
  /** Between 0 and 1: how often this is meant by such words. Set by judgement of ours, not counted. */
  prior: number
  /** What sets it apart from its rivals; a question is made of it. */
  label: MeaningLabel | null
}
export type MeaningLabel =
  | { code: 'in-turn' | 'of-each'; intervals: number }
  | { code: 'rounds'; rounds: number }
  | { code: 'intervals'; intervals: number }
  | { code: 'last-rest'; kept: boolean }

export const only = (section: Section, prior = 1, label: MeaningLabel | null = null): Meaning[] => [
  { sections: [section], prior, label },
]

/** A block on its way to a section. */
export class Draft {
  /** What all moves of the block do with their sides. */
  readonly sideRule: SideRule | null

  constructor(
    readonly said: Settled,
    /** A total of the whole plan, for a block that says none. */
    readonly promiseMs: number | null,
  ) {
    this.sideRule = sideRuleOf(said)
    for (const kind of ['byRound', 'halves', 'eachSide', 'left', 'right', 'moveCount', 'burstCount'] as const)
      said.heed(kind)
  }

  get items(): readonly Item[] {
    return this.said.items
  }

  section<N extends FormatName>(format: N, fallback: string): SectionOf<N> {
    // Whoever takes the section gives it a key of its own.
    return bareSection(format, 'part', clipped(this.said.block.name || fallback, 300))
  }

  /** Every row as a station. */
  plain(): Station[] {
    return this.items.flatMap((item) => stationsOf(item, { sideRule: this.sideRule }))
  }

  /** A bare number beside a heading that counts minutes: "EMOM 12". */
  minutes(): number | null {
    const [number] = this.said.block.numbers
    if (!number || number.low < 1 || number.low > 120) return null
    mark([number], 'used', 'minutes')
    return number.low * 60_000
  }

  /** The rest on a line of its own after the last move, where it belongs to no move. */
  closing(): Amount | null {
    const { block } = this.said
    const last = block.closing.at(-1)
    const item = block.items.at(-1)
    if (!last) return null
    if (item) Object.assign(item, { restMs: null })
    mark(last.tokens, 'used', 'rest')
    return last.ms
  }

  /** A rest on a line of its own between two groups. */
  middle(): Amount | null {
    const [first] = this.said.block.closing
    if (!first) return null
    for (const { tokens } of this.said.block.closing) mark(tokens, 'used', 'between')
    return first.ms
  }
}

const BLOCK_SIDES = [
  ['byRound', 'alternate'],
  ['halves', 'halves'],
  ['eachSide', 'each'],
  ['left', 'left'],
  ['right', 'right'],
] as const
const sideRuleOf = (said: Settled): SideRule | null => BLOCK_SIDES.find(([fact]) => said.has(fact))?.[1] ?? null

/** Parts with reps of their own share an interval; without, a row is one name. */
export function joinedStations(item: Item, options: Parameters<typeof stationsOf>[1], together = false): Station[] {
  const counts = item.parts.length > 1 && item.parts.some(({ reps }) => reps !== null)
  if (item.parts.length < 2 || (!counts && !together)) return stationsOf(item, options)
  return stationsOf(item, { ...options, apart: true }).map((station, at) => ({ ...station, joined: at > 0 }))
}

export const amountOf = (ms: number | null): Amount | null => (ms === null ? null : { low: ms, high: ms })

/** What one plans with where only bounds are typed. @param step 1000 for lengths, 1 for counts. */
export const likely = ({ low, high }: Amount, step = 1000): number => (low === high ? low : likelyIn([low, high], step))

interface Ranged {
  ranges: Record<string, Range>
}
/** Sets a length of a section, or the range that is all that was said of it. */
export function setLength<T extends Ranged>(section: T, field: keyof T & string, amount: Amount | null): void {
  if (!amount) return
  if (amount.low < amount.high) section.ranges[field] = [amount.low, amount.high]
  Object.assign(section, { [field]: likely(amount) })
}

/** The same for a count, within what a score can hold. */
export function setCount<T extends Ranged>(section: T, field: keyof T & string, amount: Amount | null): void {
  if (!amount) return
  const bounded = (value: number): number => Math.min(500, Math.max(1, value))
  const held = { low: bounded(amount.low), high: bounded(amount.high) }
  if (held.low < held.high) section.ranges[field] = [held.low, held.high]
  Object.assign(section, { [field]: likely(held, 1) })
}
