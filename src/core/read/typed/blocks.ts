// Blocks of a typed plan as they hang together: what is said once for all, what is the same as before, and breaks.
import { mark, newBlock, type Block, type Outline } from './block'
import type { Fact } from './facts'
import type { Topic } from './words/wordList'

/** A block with what it takes from the whole plan. */
export interface Placed {
  block: Block
  inherited: readonly Fact[]
  /** Whether a break that is said once for all blocks stands before this one. */
  breakBefore: boolean
}

/** Settings typed before the first block hold for all; "same as block 1" copies what is missing. */
export function blocksOf({ blocks }: Outline): Placed[] {
  const placed: Placed[] = []
  let shared: Pick<Block, 'facts' | 'topic'> = { facts: takeBreakOfAll(blocks), topic: null }
  const done: Block[] = []
  const lastWithMoves = blocks.findLastIndex(({ items }) => items.length > 0)
  blocks.forEach((block, at) => {
    const later = at < lastWithMoves
    if (later && isPreface(block)) {
      shared = { facts: block.facts, topic: block.topic }
      placed.push({ block: { ...block, facts: [] }, inherited: [], breakBefore: false })
      return
    }
    if (saysSame(block)) copy(block, done)
    if (goesOn(block, blocks[at - 1])) block.facts.push(...clockOf(done.at(-1)))
    const main = isMain(block)
    if (main && (block.topic === null || block.topic === 'block')) block.topic = shared.topic ?? block.topic
    if (block.items.length) done.push(block)
    const one = {
      block,
      inherited: main && block.topic !== 'finisher' ? shared.facts : [],
      breakBefore: main && done.length > 1,
    }
    placed.push(...trailingBreak(one, later))
  })
  return placed
}

/** "..., 1 minute between" after the last of several short parts is said of what stands between them. */
function takeBreakOfAll(blocks: readonly Block[]): Fact[] {
  const main = blocks.filter(isMain)
  const last = main.at(-1)
  if (!last || main.length < 2 || blocks.some(({ topic }) => topic === 'break')) return []
  const short = (last.topic === 'tabata' || last.topic === 'pairs') && movesIn(last) <= 2
  const rounds = main.every(({ name }) => /^Round \d/.test(name))
  const clock = (block: Block): boolean => block.facts.some(({ kind }) => kind === 'work')
  // What is said after the last of several rounds holds for all.
  if (rounds && main.every((block) => clock(block) === (block === last))) return last.facts.splice(0).map(asBlockBreak)
  const isBreak = (fact: Fact): boolean =>
    fact.kind === 'between' && (rounds || fact.what === 'block' || (short && fact.what === 'unsaid'))
  const found = last.facts.filter(isBreak).map(asBlockBreak)
  last.facts = last.facts.filter((fact) => !isBreak(fact))
  return found
}

const asBlockBreak = (fact: Fact): Fact =>
  fact.kind === 'between' && fact.what === 'round' ? { ...fact, what: 'block' } : fact

/** Moves alone after a break: the block before goes on. */
const goesOn = ({ items, facts, head }: Block, before: Block | undefined): boolean =>
  before?.topic === 'break' && items.length > 0 && !head.length && !facts.some(({ kind }) => kind === 'work')

const clockOf = (block: Block | undefined): Fact[] =>
  block?.facts.filter(({ kind }) => kind === 'work' || kind === 'rest' || kind === 'noRest' || kind === 'rounds') ?? []

/** Topics under which settings may stand for all that follows. */
const PREFACE: ReadonlySet<Topic | null> = new Set([null, 'block', 'tabata', 'pairs'])

const saysSame = ({ facts }: Block): boolean => facts.some(({ kind }) => kind === 'same')
const isPreface = (block: Block): boolean =>
  PREFACE.has(block.topic) && !block.items.length && block.facts.length > 0 && !block.closing.length && !saysSame(block)
const isMain = ({ items, topic }: Block): boolean => items.length > 0 && topic !== 'warmUp' && topic !== 'coolDown'

/** A rest on a line of its own at the end of a block whose rests are said already is a break between two. */
function trailingBreak(placed: Placed, later: boolean): Placed[] {
  const { block } = placed
  const last = block.closing.at(-1)
  const item = block.items.at(-1)
  if (!last || !item || !later || (block.topic === 'pairs' && movesIn(block) > 2) || (last.own && !saysRests(placed)))
    return [placed]
  if (last.own) Object.assign(item, { restMs: null })
  block.closing = block.closing.slice(0, -1)
  const named = /break/i.test(last.tokens.map(({ text }) => text).join(' ')) ? 'Break' : 'Rest'
  const between = newBlock('break', named)
  between.facts.push({ kind: 'rest', ...last.ms, tokens: last.tokens })
  return [placed, { block: between, inherited: [], breakBefore: false }]
}

const movesIn = ({ items }: Block): number => items.reduce((sum, { parts }) => sum + parts.length, 0)

/** Whether the rests of a block are said for all its moves, so that one at its end is none of them. */
function saysRests({ block, inherited }: Placed): boolean {
  const others = block.items.slice(0, -1).some(({ restMs }) => restMs !== null)
  const clocked = block.topic === 'emom' || block.topic === 'tabata'
  return !others && (clocked || [...block.facts, ...inherited].some(({ kind }) => kind === 'rest'))
}

/** Takes what another block says, where this one says that it is the same. */
function copy(block: Block, done: readonly Block[]): void {
  const wanted =
    block.numbers[0]?.low ?? block.facts.flatMap(({ tokens }) => tokens).find(({ role }) => role === 'N')?.low
  const source = (wanted === undefined ? undefined : done[wanted - 1]) ?? done.at(-1)
  if (!source) return
  for (const fact of block.facts) if (fact.kind === 'same') mark(fact.tokens, 'used', 'same')
  mark(block.numbers, 'used', 'same')
  block.numbers = []
  const own = new Set(block.facts.map(({ kind }) => kind))
  block.facts.push(...source.facts.filter(({ kind }) => !own.has(kind)))
  block.topic = source.topic ?? block.topic
  if (!block.items.length) block.items = source.items.map((item) => ({ ...item }))
}

/** The break that is said once for all blocks. */
export const breakLength = (facts: readonly Fact[]): number | null => {
  const fact = facts.find((one) => one.kind === 'between' && (one.what === 'block' || one.what === 'unsaid'))
  if (fact?.kind !== 'between') return null
  mark(fact.tokens, 'used', 'break')
  return fact.low
}
