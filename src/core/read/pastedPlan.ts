// Reads a plan as people type it into a description: "3 rounds: 40s lantern reach / 20s rest, ...". Whatever cannot be
// understood is kept as a line that starts with `?`; nothing is dropped.
import { MOST_SECTIONS } from '../limits'
import { formatOf, type Section } from '../score/formats'
import { sectionFromPlan, type PlanBlock, type PlanItem } from '../score/formats/fromPlan'
import { emptyScore, FreshKeys, type Score } from '../score/score'
import { DAY, type Ms } from '../units'
import { clipped } from '../text'

const UNIT = String.raw`(?:s|secs?|seconds?|sec\.|m|mins?|minutes?|min\.|h|hrs?|hours?)`
const LENGTH = String.raw`(?:\d{1,3}:\d\d|\d+(?:[.,]\d+)?\s*${UNIT}(?!\p{L})(?:\s*\d+\s*${UNIT}(?!\p{L}))?)`
/** `\b` of a plain expression knows no letters but a to z: "é" would end a word. */
const EDGE = String.raw`(?:(?<![\p{L}\p{N}_])(?=[\p{L}\p{N}_])|(?<=[\p{L}\p{N}_])(?![\p{L}\p{N}_]))`
const find = (pattern: string): RegExp => new RegExp(pattern.replaceAll(String.raw`\b`, EDGE), 'iu')

const ROUNDS = find(
  String.raw`\b(\d{1,3})\s*(?:x\s*)?(rounds?|laps?|times through|times|sets?)\b|(?:\bx|×)\s*(\d{1,3})\s*(rounds?|sets?)?(?![\w:])|\brepeat\s+(\d{1,3})`,
)
const BETWEEN = find(
  String.raw`(?:(?:rest|break|pause)\s*(?:of|for)?\s*)?(${LENGTH})\s*(?:rest|break|pause|off)?\s*between\s*(?:each\s*)?(?:rounds?|sets?|laps?|blocks?)|(?:rest|break)\s*between\s*(?:rounds?|sets?)\s*[:=]?\s*(${LENGTH})`,
)
const ON_OFF = find(
  String.raw`(${LENGTH}|\d{1,3})\s*(?:of\s*)?(?:work|on)\b[\s,/&+-]*(?:and\s*)?(${LENGTH}|\d{1,3})\s*(?:of\s*)?(?:rest|off|recovery)\b|\b(\d{1,3})\s*\/\s*(\d{1,3})\b`,
)
const EACH = find(String.raw`(${LENGTH})\s*(?:each|per move|per exercise|a move|work|on)\b`)
const REST_EACH = find(String.raw`(${LENGTH})\s*(?:rest|off|recovery)\b(?!\s*between)`)
const REST_ITEM = find(
  String.raw`^(?:(${LENGTH}|\d{1,3})\s*(?:of\s*)?)?(?:rest|off|break|pause|recover(?:y)?|breathe)(?:\s*(?:for|of|-|:)?\s*(${LENGTH}|\d{1,3}s?))?$`,
)
const BOTH_SIDES = find(
  String.raw`[\s,(-]*\b(?:each side|per side|each leg|each arm|both sides|l\s*\/\s*r|left (?:and|then) right)\b\)?`,
)
const BETWEEN_PARTS = find(String.raw`\s*(?:[,;|]|\s\/\s|→|\bthen\b|\s\+\s)\s*`)
/** Words and marks that hang at the ends of a heading when its numbers are taken out. */
const NOT_IN_NAMES = new RegExp(
  find(String.raw`\b(?:of|with|and|then|the|for|each|in)\b(?=\s*$|\s*[,;])|^[\s,;&+–—\-]+|[\s,;&+–—:\-]+$`),
  'giu',
)
/** Commas and dashes with nothing left between them. */
const LONE_MARKS = /(?:\s*[,;&+–—-](?=\s|[,;&+–—-]|$)){2,}/g
const BULLET = /^\s*(?:[-*•·–—>▪]+|\d{1,2}[.)](?=\s))\s*/

const SETTINGS = ['rounds', 'workMs', 'restMs', 'betweenMs', 'totalMs'] as const
type Setting = (typeof SETTINGS)[number]

/** `said`: the words that it was read from; `restSaid`: those of the rest after it. */
type Item = PlanItem & { said: string; restSaid: string }
type Block = Omit<PlanBlock, 'items'> & { items: Item[]; unread: string[]; said: Partial<Record<Setting, string>> }

/** @returns a score of whatever was understood; lines that start with `?` hold the rest. */
export function readPastedPlan(text: string, title = ''): Score {
  const blocks: Block[] = []
  const lead: string[] = []
  let named = title
  let open: Block | null = null
  const start = (): Block => {
    const block: Block = {
      ...{ name: '', rounds: null, workMs: null, restMs: null, betweenMs: null, totalMs: null },
      ...{ items: [], unread: [], headings: [], said: {} },
    }
    blocks.push(block)
    return block
  }
  for (const raw of text.slice(0, 400_000).split(/\r\n|\r|\n/)) {
    const bulleted = BULLET.test(raw)
    const line = raw.replace(BULLET, '').replace(/\s+/g, ' ').trim()
    if (!line) continue
    if (isNoLine(line)) {
      open ??= start()
      open.unread.push(...piecesOf(line))
      continue
    }
    const headed = headingBeforeColon(line)
    if (headed) {
      open = start()
      readHeading(open, headed.heading)
      if (headed.after) readBody(open, headed.after)
      continue
    }
    if (!bulleted && isHeading(line) && !readsAsItem(line)) {
      const bare = bareSettings(line)
      // Settings on a line of their own belong to the block that is open, unless it has moves already.
      if (!open || open.items.length || !bare) open = start()
      readHeading(open, line)
      continue
    }
    const body: Block | null = open ?? (readsAsItem(line) || bulleted ? start() : null)
    if (!body) {
      if (!named && !lead.length) named = clipped(line, 300)
      else lead.push(line)
      continue
    }
    open = body
    readBody(body, line, bulleted)
  }
  return assemble(blocks, lead, named)
}

/** Nobody types a plan in lines or words this long; they are kept, and not searched for one. */
const LONGEST_LINE = 400
const LONG_WORD = /\S{80}/
const piecesOf = (line: string): string[] => line.match(new RegExp(`.{1,${LONGEST_LINE}}`, 'gu')) ?? []
const isNoLine = (line: string): boolean => line.length > LONGEST_LINE * 3 || LONG_WORD.test(line)

/** "Main: 12 squats, 12 lunges": what stands before the colon, where it heads a block, and what follows. */
function headingBeforeColon(line: string): { heading: string; after: string } | null {
  const colon = /^([^:]*?(?:[^\d:]|\D\d|^\d)\s*):(?!\d)\s*(.*)$/.exec(line)
  const heading = colon?.[1]?.trim() ?? '',
    after = colon?.[2] ?? ''
  return colon && heading.length <= 80 && (isHeading(heading) || !after) ? { heading, after } : null
}

const NAMES = find(
  String.raw`\b(warm[\s-]?up|cool[\s-]?down|stretch(?:es|ing)|main|finisher|circuit|block|part|section|amrap|tabata|emom|every minute|ladder|intro(?:duction)?|welcome|outro|demo)\b`,
)
const isHeading = (text: string): boolean =>
  NAMES.test(text) || ROUNDS.test(text) || ON_OFF.test(text) || BETWEEN.test(text)
const bareSettings = (text: string): boolean => !NAMES.test(text)

/** "12 squats", "40s plank", "plank 40s", "squats x 12": a move rather than a heading. */
function readsAsItem(typed: string): boolean {
  const text = typed.replace(BOTH_SIDES, '').trim()
  if (REST_ITEM.test(text)) return true
  if ((ROUNDS.test(text) && !/^\s*\d+\s*x\s|\bx\s*\d+\s*$/i.test(text)) || BETWEEN.test(text)) return false
  return (
    (new RegExp(`^(?:${LENGTH})\\s+\\p{L}`, 'iu').test(text) && !/^\S+\s*(?:work|on|rest|off|each)\b/i.test(text)) ||
    (new RegExp(`\\p{L}.*?[\\s(-](?:${LENGTH})\\)?$`, 'iu').test(text) && !NAMES.test(text)) ||
    (/^\d{1,3}\s+(?:x\s+|reps\s+)?\p{L}{3}/iu.test(text) && !/^\d+\s*(?:rounds?|sets?|minutes?|min)\b/i.test(text)) ||
    /\p{L}\s*(?:x|×)\s*\d{1,3}$/iu.test(text)
  )
}

/** Takes a number of the block; one that says otherwise than what was read before is kept as it was typed. */
function set(block: Block, setting: Setting, value: number | null, said: string): void {
  if (value === null) return
  if (block[setting] === null) {
    block[setting] = value
    block.said[setting] = said.trim()
  } else if (block[setting] !== value && block.unread.at(-1) !== said.trim()) block.unread.push(said.trim())
}

/** A text without what a pattern found in it. */
const without = (text: string, found: RegExpExecArray): string =>
  `${text.slice(0, found.index)} ${text.slice(found.index + found[0].length)}`

function readHeading(block: Block, text: string): void {
  block.headings.push(text)
  let rest = text
  /**
   * Takes what a pattern finds out of the text, as often as it stands there; what is said twice otherwise is kept by
   * `set`.
   */
  const take = (pattern: RegExp, read: (found: RegExpExecArray) => void): void => {
    for (let found = pattern.exec(rest); found; found = pattern.exec(rest)) {
      rest = without(rest, found)
      read(found)
    }
  }
  take(BETWEEN, (found) => set(block, 'betweenMs', lengthIn(found[1] ?? found[2]), found[0]))
  take(ON_OFF, (found) => readOnOff(block, found))
  take(ROUNDS, (found) => set(block, 'rounds', bounded(Number(found[1] ?? found[3] ?? found[5]), 500), found[0]))
  for (const [setting, pattern] of [
    ['workMs', EACH],
    ['restMs', REST_EACH],
    ['totalMs', find(LENGTH)],
  ] as const)
    take(pattern, (found) => set(block, setting, lengthIn(found[1] ?? found[0]), found[0]))
  const name = rest
    .replace(/[(){}[\]]/g, ' ')
    .replace(LONE_MARKS, ' ')
    .replace(NOT_IN_NAMES, ' ')
    .replace(/\s+/g, ' ')
    .trim()
  if (!/\p{L}{2}/u.test(name) || /^(?:of|with|and|then|each|for)$/i.test(name)) {
    if (/\d/.test(rest)) block.unread.push(rest.replace(/^[\s,;:]+|[\s,;:]+$/g, ''))
    return
  }
  if (block.name) block.unread.push(name)
  else block.name = clipped(name, 300)
}

function readOnOff(block: Block, found: RegExpExecArray): void {
  set(block, 'workMs', lengthIn(found[1] ?? found[3]), found[0])
  set(block, 'restMs', lengthIn(found[2] ?? found[4]), found[0])
}

const trimmed = (text: string): string => text.replace(/^[\s,;:/]+|[\s,;:/]+$/g, '')

/** A rest that is said of its own belongs to the move before it; the second one to the block. */
function readRest(block: Block, part: string, ms: number | null): void {
  const last = block.items.at(-1)
  if (ms === null || !last) block.unread.push(part.trim())
  else if (last.restMs === null) Object.assign(last, { restMs: ms, restSaid: part.trim() })
  else set(block, 'betweenMs', ms, part)
}

function readBody(block: Block, typed: string, bulleted = false): void {
  const between = BETWEEN.exec(typed)
  if (between) set(block, 'betweenMs', lengthIn(between[1] ?? between[2]), between[0])
  let text = between ? trimmed(without(typed, between)) : typed
  // "40 on, 20 off" is one thing to say, comma or not, and no move.
  const onOff = ON_OFF.exec(text)
  if (onOff?.[1]) {
    readOnOff(block, onOff)
    text = trimmed(without(text, onOff))
  }
  if (between && !onOff?.[1] && !/\d/.test(text)) {
    if (/\p{L}/u.test(text)) block.unread.push(text)
    return
  }
  const parts = text.split(BETWEEN_PARTS).filter(Boolean)
  // "Have fun and drink water, see you all next week!" is a sentence, commas or not.
  if (!bulleted && !/\d/.test(text) && (/[!?.]$/.test(text) || parts.some(isLong))) {
    block.unread.push(text.trim())
    return
  }
  for (const part of parts) readPart(block, part, bulleted || parts.length > 1)
}

/** One move, rest or number of a block. @param listed it stands in a list. */
function readPart(block: Block, part: string, listed: boolean): void {
  const rest = REST_ITEM.exec(part.trim())
  if (rest) {
    readRest(block, part, lengthIn(rest[1] ?? rest[2]))
    return
  }
  if (new RegExp(`^${LENGTH}$`, 'iu').test(part.trim())) {
    set(block, 'totalMs', lengthIn(part), part)
    return
  }
  if (isHeading(part) && bareSettings(part) && !readsAsItem(part)) {
    readHeading(block, part)
    return
  }
  const item = readItem(part.trim())
  if (!item || isRemark(block, item, part, listed)) block.unread.push(part.trim())
  else block.items.push(item)
}

/**
 * Whether what could be a move without numbers is rather a remark: a sentence, or the only words of a block that says
 * nothing of work.
 * @param listed it stands in a list.
 */
function isRemark(block: Block, item: Item, part: string, listed: boolean): boolean {
  if (item.workMs !== null || item.reps !== null) return false
  if (isLong(part) || /[!?]$|\.\s/.test(part)) return true
  const saysWork = block.items.length > 0 || block.workMs !== null || (block.rounds ?? 0) > 0
  return !listed && !saysWork && !block.headings.some((heading) => NAMES.test(heading))
}

const isLong = (text: string): boolean => text.trim().split(/\s+/).length > 7

function readItem(text: string): Item | null {
  let label = text.replace(BULLET, '')
  const eachSide = BOTH_SIDES.test(label)
  label = label.replace(BOTH_SIDES, ' ')
  let reps: number | null = null
  const length = find(String.raw`(?:^|[\s(–—:-])(${LENGTH})(?=$|[\s),.])`).exec(label)
  const workMs = lengthIn(length?.[1])
  if (length) label = `${label.slice(0, length.index)} ${label.slice(length.index + length[0].length)}`
  const counted =
    /^\s*(\d{1,4})\s*(?:x|×|reps?(?:\s+of)?)?\s+(?=\p{L})/iu.exec(label) ??
    /[\s(–—-]+(?:x|×)\s*(\d{1,4})\)?\s*$/iu.exec(label) ??
    /[\s(–—-]+(\d{1,4})\s*reps?\)?\s*$/iu.exec(label)
  if (counted) {
    reps = bounded(Number(counted[1]), 10_000)
    label = label.replace(counted[0], ' ')
  }
  label = label
    .replace(/[()[\]]/g, ' ')
    .replace(/^[\s.:–—-]+|[\s.:–—-]+$/g, '')
    .replace(/^of\s+/i, '')
    .replace(/\s+/g, ' ')
    .trim()
  label = clipped(label, 300)
  if (!/\p{L}{2}/u.test(label)) return null
  return {
    label: label.charAt(0).toUpperCase() + label.slice(1),
    workMs,
    reps,
    eachSide,
    restMs: null,
    said: text,
    restSaid: '',
  }
}

function lengthIn(text: string | undefined): Ms | null {
  if (!text) return null
  const clock = /^(\d{1,3}):(\d\d)$/.exec(text.trim())
  if (clock) return Math.min(DAY, (Number(clock[1]) * 60 + Number(clock[2])) * 1000)
  let seconds: number | null = null
  for (const [, amount = '', unit = ''] of text.matchAll(/(\d+(?:[.,]\d+)?)\s*([a-z]*)/gi))
    seconds = (seconds ?? 0) + Number(amount.replace(',', '.')) * (/^h/i.test(unit) ? 3600 : /^m/i.test(unit) ? 60 : 1)
  return seconds === null ? null : Math.min(DAY, Math.round(seconds * 1000))
}

const bounded = (value: number, most: number): number => Math.min(most, Math.max(1, Math.round(value)))

function assemble(blocks: readonly Block[], lead: readonly string[], title: string): Score {
  const score = emptyScore(title)
  const waiting = lead.map((line) => mark(line))
  const keys = new FreshKeys()
  for (const block of blocks) {
    const section = score.sections.length < MOST_SECTIONS ? sectionFromPlan(block, keys) : null
    const unread = block.unread.map(mark)
    if (!section) {
      const body = SETTINGS.flatMap((setting) => block.said[setting] ?? []).filter(
        (said) => !block.headings.some((heading) => heading.includes(said)),
      )
      const moves = block.items.flatMap(({ said, restSaid }) => [said, restSaid].filter(Boolean))
      waiting.push(...[...block.headings, ...body, ...moves].map(mark), ...unread)
      continue
    }
    section.above = [...waiting.splice(0), ...unread, ...unusedIn(section, block).map(mark)]
    score.sections.push(section)
  }
  score.below = waiting
  return score
}

/** What was understood and has no place in the section that was made: the words it was read from. */
function unusedIn(section: Section, { said, items }: Block): string[] {
  const { fields, perMove = [] } = formatOf(section).notation
  const elsewhere = 'where' in section && section.where !== 'here'
  const has = (...names: string[]): boolean => !elsewhere && fields.some(({ field }) => names.includes(field))
  const byMinutes = has('slotMs')
  const used: Record<Setting, boolean> = {
    rounds: byMinutes ? said.totalMs === undefined : has('rounds', 'intervals'),
    workMs: has('workMs'),
    restMs: has('restMs'),
    betweenMs: has('roundBreakMs', 'burstBreakMs'),
    totalMs: byMinutes || has('guessMs'),
  }
  const lost = (item: Item): string[] => [
    ...((item.workMs !== null && !perMove.includes('workMs')) || (item.reps !== null && !perMove.includes('reps'))
      ? [item.said]
      : []),
    ...(item.restMs !== null && !perMove.includes('restMs') ? [item.restSaid] : []),
  ]
  return [
    ...new Set([
      ...SETTINGS.flatMap((setting) => (used[setting] ? [] : (said[setting] ?? []))),
      ...items.flatMap(lost),
    ]),
  ]
}

const mark = (line: string): string => `? ${clipped(line.replace(/[\r\n]/g, ' '), 1900)}`
