// Reads a plan as people type it into a description. Nothing is invented and nothing vanishes: each word and number ends
// up used, kept or not understood; where two readings are close it asks, with the likelier one chosen already.
import { tryExpand } from '../expand/expand'
import { MOST_SECTIONS } from '../limits'
import { Problem } from '../problem'
import { bareSection, formatOf, type Section } from '../score/formats'
import { withKeys } from '../score/formats/keys'
import { emptyScore, FreshKeys, scoreSchema, type Score } from '../score/score'
import { readShorthand } from '../shorthand/read'
import { clipped } from '../text'
import type { Ms } from '../units'
import { readIntervalTable, TABLE_HEADER } from './intervalTable'
import { readChapters } from './typed/chapters'
import type { Fact } from './typed/facts'
import { Meanings, type Meaning, type MeaningLabel } from './typed/meanings'
import { mark, OutlineReader, type Block, type Outline } from './typed/outline'
import { Settled } from './typed/settled'
import { withoutTables } from './typed/table'
import { tokensOf, type Token } from './typed/tokens'

export type { Token } from './typed/tokens'

export interface Choice {
  label: MeaningLabel
  totalMs: Ms
  chosen: boolean
}
export interface Question {
  /** The block that it is about. */
  about: string
  moves: readonly string[]
  /** Why the chosen one is. */
  because: 'usual' | 'total'
  choices: readonly Choice[]
}

export interface PlanReading {
  score: Score
  /** Every word, number and mark of the text, in order. */
  tokens: readonly Token[]
  questions: readonly Question[]
  /** A total that the plan states and no reading gives. */
  unmet: { statedMs: Ms; totalMs: Ms } | null
}

/** Longer texts are no plans; nobody would read them either. */
export const LONGEST_PLAN = 200_000
const MOST_QUESTIONS = 3
/** What a stated total adds to the reading that gives it: more than any wording. */
const STATED = 1.5
/** Readings whose likelihoods differ by more are not asked about. */
const CLOSE = 0.4

/**
 * @param answers which choice holds, by the place of its question.
 * @throws Problem `plan-too-long` above 200,000 letters.
 */
export function readTypedPlan(text: string, title = '', answers: readonly (number | null)[] = []): PlanReading {
  if (text.length > LONGEST_PLAN) throw new Problem({ code: 'plan-too-long', letters: text.length, most: LONGEST_PLAN })
  const lines = text.split(/\r\n|\r|\n|\u2028|\u2029/)
  return ownNotation(text, lines) ?? chaptered(lines, title) ?? typed(lines, title, answers)
}

/** The shorthand, or an interval table, is taken as it is. */
function ownNotation(text: string, lines: readonly string[]): PlanReading | null {
  const first = lines.find((line) => line.trim())?.trim() ?? ''
  const all = (): Token[] => {
    const tokens = lines.flatMap((line, index) => tokensOf(line, index))
    mark(tokens, 'used', 'notation')
    return tokens
  }
  if (first.replaceAll('"', '').startsWith(TABLE_HEADER.join(','))) {
    try {
      return { score: readIntervalTable(text, ''), tokens: all(), questions: [], unmet: null }
    } catch {
      return null
    }
  }
  if (!/^(?:title\b|#|\?|score:|[a-z-]+ ?[^:]{0,80}:)/.test(first)) return null
  const { score, problems } = readShorthand(text)
  return problems.length || !score.sections.length ? null : { score, tokens: all(), questions: [], unmet: null }
}

function chaptered(lines: readonly string[], title: string): PlanReading | null {
  const found = readChapters(lines, new FreshKeys())
  if (!found) return null
  const score = { ...emptyScore(title), sections: found.sections.map(withKeys) }
  score.above = found.others.map((line) => remark('#', line))
  return { score, tokens: found.tokens, questions: [], unmet: null }
}

function typed(lines: readonly string[], title: string, answers: readonly (number | null)[]): PlanReading {
  const plain = withoutTables(lines)
  const outline = new OutlineReader().read(plain, title)
  const blocks = blocksOf(outline)
  const keys = new FreshKeys()
  const promiseMs = outline.promise?.low ?? null
  const score = { ...emptyScore(clipped(outline.title, 300)), promiseMs }
  const mains = blocks.filter(({ block }) => block.items.length > 0).length
  const questions: Question[] = []
  const waiting: string[] = []
  let breakMs: Ms | null = null
  let unmet: PlanReading['unmet'] = null
  for (const { block, inherited, breakAfter } of blocks) {
    const said = new Settled(block, inherited)
    const goal = mains === 1 ? promiseMs : null
    const meanings = (new Meanings(said, goal).all() ?? []).flatMap((one) => withLastRest(one, said))
    const best = meanings.length ? choose(meanings, said, questions, answers, goal) : null
    if (!best) {
      waiting.push(...remarksOf(block))
      continue
    }
    const stated = said.total
    if (stated && stated.fate !== 'used' && best.sections.length) {
      const totalMs = sumOf(best.sections)
      mark([stated], 'used', 'total')
      if (!near(totalMs, stated.low)) unmet ??= { statedMs: stated.low, totalMs }
    }
    const [first] = best.sections
    if (first) {
      if (breakMs !== null && breakAfter === 'before') score.sections.push(pause(keys, breakMs))
      first.above = [...waiting.splice(0), ...remarksOf(block)].slice(0, 1000)
    }
    breakMs = block.items.length ? (breakLength(inherited) ?? null) : breakMs
    for (const section of best.sections.slice(0, MOST_SECTIONS - score.sections.length))
      score.sections.push(withKeys({ ...section, key: keys.take(section.name) }))
  }
  score.below = waiting
  for (const token of outline.tokens) if (token.fate === 'unread' && isMark(token)) mark([token], 'kept', 'mark')
  const tokens = tableTokens(outline.tokens, lines, plain)
  const asked = questions.slice(0, MOST_QUESTIONS)
  return { score: scoreSchema.parse(withUnread(score, outline.tokens)), tokens, questions: asked, unmet }
}

/** Rows of a table were read in other words than they were typed: their own tokens stand for those. */
function tableTokens(
  tokens: readonly Token[],
  typedLines: readonly string[],
  read: readonly string[],
): readonly Token[] {
  if (read.every((line, index) => line === typedLines[index])) return tokens
  const byLine = new Map<number, Token[]>()
  for (const token of tokens) byLine.set(token.line, [...(byLine.get(token.line) ?? []), token])
  return typedLines.flatMap((line, index) => {
    const held = byLine.get(index) ?? []
    if (line === read[index]) return held
    const own = tokensOf(line, index)
    mark(own, held.some(({ fate }) => fate === 'unread') ? 'unread' : 'used', 'table')
    return own
  })
}

const isMark = ({ text, role }: Token): boolean => !/[\p{L}\p{N}]/u.test(text) || /^[ge&Tbx1:#@]$/.test(role)

interface Placed {
  block: Block
  inherited: readonly Fact[]
  /** Whether a break that is said once for all blocks stands before this one. */
  breakAfter: 'before' | 'none'
}

/** Settings typed before the first block hold for all; "same as block 1" copies what is missing. */
function blocksOf({ blocks }: Outline): Placed[] {
  const placed: Placed[] = []
  let shared: readonly Fact[] = []
  let topic: Block['topic'] = null
  const done: Block[] = []
  const lastWithMoves = blocks.findLastIndex(({ items }) => items.length > 0)
  blocks.forEach((block, at) => {
    const later = at < lastWithMoves
    const plain =
      !block.items.length &&
      (block.topic === null || block.topic === 'block' || block.topic === 'tabata' || block.topic === 'pairs')
    const same = block.facts.some(({ kind }) => kind === 'same')
    if (plain && !same && block.facts.length && later && !block.closing.length) {
      shared = block.facts
      topic = block.topic
      placed.push({ block: { ...block, facts: [] }, inherited: [], breakAfter: 'none' })
      return
    }
    if (same) copy(block, done)
    const main = block.items.length > 0 && block.topic !== 'warmUp' && block.topic !== 'coolDown'
    if (main && topic && (block.topic === null || block.topic === 'block')) block.topic = topic
    if (block.items.length) done.push(block)
    placed.push(
      ...trailingBreak(
        { block, inherited: main ? shared : [], breakAfter: main && done.length > 1 ? 'before' : 'none' },
        later,
      ),
    )
  })
  return placed
}

/** A rest on a line of its own at the end of a block whose rests are said already is a break between two. */
function trailingBreak(placed: Placed, later: boolean): Placed[] {
  const { block } = placed
  const last = block.closing.at(-1)
  const item = block.items.at(-1)
  const others = block.items.slice(0, -1).some(({ restMs }) => restMs !== null)
  const said =
    [...block.facts, ...placed.inherited].some(({ kind }) => kind === 'rest') ||
    block.topic === 'emom' ||
    block.topic === 'tabata'
  if (!last || !item || !later || (last.own && (others || !said)) || block.topic === 'pairs') return [placed]
  if (last.own) Object.assign(item, { restMs: null })
  const pauseBlock: Block = {
    ...{
      topic: 'break',
      name: /break/i.test(last.tokens.map(({ text }) => text).join(' ')) ? 'Break' : 'Rest',
      facts: [{ kind: 'rest', ...last.ms, tokens: last.tokens }],
    },
    ...{ totals: [], numbers: [], items: [], remarks: [], unread: [], link: '', round: null, closing: [] },
  }
  block.closing = block.closing.slice(0, -1)
  return [placed, { block: pauseBlock, inherited: [], breakAfter: 'none' }]
}

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

const breakLength = (facts: readonly Fact[]): Ms | null => {
  const fact = facts.find((one) => one.kind === 'between' && (one.what === 'block' || one.what === 'unsaid'))
  if (fact?.kind !== 'between') return null
  mark(fact.tokens, 'used', 'break')
  return fact.low
}

const pause = (keys: FreshKeys, durationMs: Ms): Section => ({
  ...bareSection('break', keys.take('Break'), 'Break'),
  durationMs,
})

/** Where a total is stated, the last rest may be there or not. */
function withLastRest(meaning: Meaning, said: Settled): Meaning[] {
  const [section] = meaning.sections
  if (!said.total || meaning.sections.length !== 1 || !section || !('lastRest' in section)) return [meaning]
  const dropped: Meaning = {
    sections: [{ ...section, lastRest: 'dropped' }],
    prior: meaning.prior * 0.3,
    label: meaning.label ?? { code: 'last-rest', kept: false },
  }
  return [{ ...meaning, label: meaning.label ?? { code: 'last-rest', kept: true } }, dropped]
}

/** The likeliest meaning, after what the plan says of its sum; its close rivals make a question. */
function choose(
  meanings: readonly Meaning[],
  said: Settled,
  questions: Question[],
  answers: readonly (number | null)[],
  goalMs: Ms | null,
): Meaning {
  const stated = said.total?.low ?? null
  const weighed = meanings
    .map((meaning) => {
      const totalMs = sumOf(meaning.sections)
      const fits =
        stated !== null
          ? near(totalMs, stated)
            ? STATED
            : 0
          : goalMs !== null && Math.abs(totalMs - goalMs) <= goalMs * 0.1
            ? 0.5
            : 0
      return { meaning, totalMs, weight: meaning.prior + fits, fits }
    })
    .sort((one, other) => other.weight - one.weight)
  const [best] = weighed
  if (!best) throw new Error('a choice of nothing')
  const rivals = weighed.filter(
    (one) => best.weight - one.weight < CLOSE && one.totalMs !== best.totalMs && one.meaning.label,
  )
  const { label } = best.meaning
  if (!rivals.length || !label || questions.length >= MOST_QUESTIONS) return best.meaning
  const choices = [best, ...rivals].slice(0, 3)
  const answer = answers[questions.length] ?? 0
  const chosen = choices[answer] ?? best
  questions.push({
    about: said.block.name,
    moves: said.items.flatMap(({ parts }) => parts.map((part) => part.label)),
    because: best.fits ? 'total' : 'usual',
    choices: choices.map((one) => ({
      label: one.meaning.label ?? label,
      totalMs: one.totalMs,
      chosen: one === chosen,
    })),
  })
  return chosen.meaning
}

/** Within a second, or what one says of a length: half a percent. */
const near = (oneMs: Ms, otherMs: Ms): boolean => Math.abs(oneMs - otherMs) <= Math.max(1000, otherMs * 0.005)

const sumOf = (sections: readonly Section[]): Ms =>
  tryExpand({ ...emptyScore(''), sections: sections.map(withKeys) }).expansion?.totalMs ?? 0

const remark = (sign: '#' | '?', line: string): string =>
  `${sign} ${clipped(line.replace(/[\r\n\u2028\u2029]/g, ' '), 1900)}`

const remarksOf = ({ remarks, unread }: Block): string[] => [
  ...remarks.map((line) => remark('#', line)),
  ...unread.map((line) => remark('?', line)),
]

/** What nobody understood stands at the end, a line for each run of words. */
function withUnread(score: Score, tokens: readonly Token[]): Score {
  const runs: Token[][] = []
  tokens.forEach((token, at) => {
    if (token.fate !== 'unread') return
    const before = tokens[at - 1]
    if (before?.fate === 'unread' && before.line === token.line) runs.at(-1)?.push(token)
    else runs.push([token])
  })
  const lines = runs.map((run) => remark('?', run.map(({ text }) => text).join(' ')))
  return { ...score, below: [...score.below, ...lines].slice(0, 50_000) }
}

/** How a section is called in questions. */
export const formatName = (section: Section): string => formatOf(section).notation.head
