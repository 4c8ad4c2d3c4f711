// Reads a plan as people type it into a description. Nothing is invented and nothing vanishes: each word and number
// ends up used, kept or not understood; where two readings are close it asks, with the likelier one chosen already.
import { tryExpand } from '../expand/expand'
import { MOST_SECTIONS } from '../limits'
import { Problem } from '../problem'
import { bareSection, stationsOf, type Section } from '../score/formats'
import { withTrueJoins } from '../score/formats/joined'
import { withKeys } from '../score/formats/keys'
import { emptyScore, FreshKeys, scoreSchema, type Score } from '../score/score'
import { readShorthand } from '../shorthand/read'
import { clipped } from '../text'
import type { Ms } from '../units'
import { readIntervalTable, TABLE_HEADER } from './intervalTable'
import { mark, type Block } from './typed/block'
import { blocksOf, breakLength, type Placed } from './typed/blocks'
import { readChapters } from './typed/chapters'
import { choose, isNear, sumsOf, type Question } from './typed/choice'
import { meaningsOf } from './typed/meanings'
import { OutlineReader } from './typed/outline'
import { Settled } from './typed/settled'
import { withoutTables } from './typed/table'
import { tokensOf, type Token } from './typed/tokens'

export type { Question } from './typed/choice'
export type { Token } from './typed/tokens'

export interface PlanReading {
  score: Score
  /** Every word, number and mark of the text, in order. */
  tokens: readonly Token[]
  questions: readonly Question[]
  /** A total that the plan states and no reading gives. */
  unmet: { statedMs: Ms; totalMs: Ms } | null
}

/** The lines of a text as tokens count them. */
export const linesOf = (text: string): string[] => text.split(/\r\n|\r|\n|\u2028|\u2029/)

/** Longer texts are no plans; nobody would read them either. */
export const LONGEST_PLAN = 200_000
const MOST_QUESTIONS = 3

/**
 * @param answers which choice holds, by the place of its question.
 * @throws Problem `plan-too-long` above 200,000 letters.
 */
export function readTypedPlan(text: string, title = '', answers: readonly (number | null)[] = []): PlanReading {
  if (text.length > LONGEST_PLAN) throw new Problem({ code: 'plan-too-long', letters: text.length, most: LONGEST_PLAN })
  const lines = linesOf(text)
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
  const promiseMs = outline.promise?.low ?? null
  const builder = new Builder({ ...emptyScore(clipped(outline.title, 300)), promiseMs }, answers)
  const placed = blocksOf(outline)
  const lone = placed.filter(({ block }) => block.items.length > 0).length === 1
  for (const one of placed) builder.block(one, lone ? promiseMs : null)
  for (const token of outline.tokens) if (token.fate === 'unread' && isMark(token)) mark([token], 'kept', 'mark')
  const { score, questions, unmet: unmetBlock } = builder.done()
  const unmet = unmetBlock ?? unmetPromise(score)
  const tokens = tableTokens(outline.tokens, lines, plain)
  const read = scoreSchema.safeParse(withUnread(score, outline.tokens))
  if (read.success) return { score: read.data, tokens, questions, unmet }
  // Each part of it holds, the whole does not: nothing is made of it, and every word is shown as not understood.
  mark(tokens, 'unread', '')
  const nothing = { ...emptyScore(''), below: lines.filter((line) => line.trim()).map((line) => remark('?', line)) }
  return { score: nothing, tokens, questions: [], unmet: null }
}

/** A section as a score can hold it; null where its numbers are beyond what one can be. */
function soundSection(section: Section): Section | null {
  const tidy = withKeys(withTrueJoins(section))
  return scoreSchema.safeParse({ ...emptyScore(''), sections: [tidy] }).success ? tidy : null
}

/** Puts the sections of one block after another into a score. */
class Builder {
  private readonly keys = new FreshKeys()
  private readonly questions: Question[] = []
  /** Remarks of blocks that became no section: they stand above the next one. */
  private readonly waiting: string[] = []
  private breakMs: Ms | null = null
  private unmet: PlanReading['unmet'] = null

  constructor(
    private readonly score: Score,
    private readonly answers: readonly (number | null)[],
  ) {}

  done(): Pick<PlanReading, 'score' | 'questions' | 'unmet'> {
    return { score: { ...this.score, below: this.waiting }, questions: this.questions, unmet: this.unmet }
  }

  block({ block, inherited, breakBefore }: Placed, goalMs: Ms | null): void {
    const said = new Settled(block, inherited)
    const answer = this.answers[this.questions.length] ?? null
    const chosen = choose(meaningsOf(said, goalMs) ?? [], said, goalMs, answer)
    if (!chosen) return this.keep(block)
    const sections = chosen.meaning.sections.flatMap((one) => soundSection({ ...one, key: one.key || 'x' }) ?? [])
    if (sections.length < chosen.meaning.sections.length) return this.keep(block)
    if (chosen.question && this.questions.length < MOST_QUESTIONS) this.questions.push(chosen.question)
    this.holdAgainstTotal(said, sections)
    if (this.breakMs !== null && breakBefore) this.add(pause(this.breakMs))
    if (block.items.length) this.breakMs = breakLength(inherited)
    if (said.has('rightFirst')) for (const section of sections) beginRight(section, said)
    const [first] = sections
    if (first) first.above = [...this.waiting.splice(0), ...remarksOf(block)].slice(0, 1000)
    for (const section of sections) this.add(section)
  }

  /** Nothing is made of a block: its moves are not understood, and its heading stays as a remark. */
  private keep(block: Block): void {
    mark(
      block.items.flatMap(({ parts, facts }) => [...parts, ...facts].flatMap(({ tokens }) => tokens)),
      'unread',
      '',
    )
    if (block.head.length) {
      mark(block.head, 'kept', 'remark')
      this.waiting.push(remark('#', block.name))
    }
    this.waiting.push(...remarksOf(block))
  }

  private add(section: Section): void {
    if (this.score.sections.length >= MOST_SECTIONS) return
    this.score.sections.push(withKeys({ ...section, key: this.keys.take(section.name) }))
  }

  /** A total that the block states and nothing has used yet. */
  private holdAgainstTotal({ total }: Settled, sections: readonly Section[]): void {
    if (!total || total.fate === 'used') return
    const sums = sumsOf(sections)
    mark([total], 'used', 'total')
    if (!sums.some((sum) => isNear(sum, total.low))) this.unmet ??= { statedMs: total.low, totalMs: sums[0] }
  }
}

/** The minutes of the title, where neither the video nor the workout in it comes near them. */
function unmetPromise(score: Score): PlanReading['unmet'] {
  const { expansion } = tryExpand(score)
  const { promiseMs } = score
  if (promiseMs === null || !expansion) return null
  const far = (ms: Ms): boolean => Math.abs(ms - promiseMs) > Math.max(60_000, promiseMs * 0.1)
  const { totalMs, workoutMs } = expansion
  return far(totalMs) && far(workoutMs) ? { statedMs: promiseMs, totalMs } : null
}

/** "Right side first", said of a whole block. */
function beginRight(section: Section, said: Settled): void {
  said.heed('rightFirst')
  for (const station of stationsOf(section)) station.firstSide = 'right'
}

const pause = (durationMs: Ms): Section => ({ ...bareSection('break', 'part', 'Break'), durationMs })

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
