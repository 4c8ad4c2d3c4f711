// Reads a plan as people type it into a description: "3 rounds: 40s lantern reach / 20s rest, ...". Whatever cannot be
// understood is kept as a line that starts with `?`; nothing is dropped.
import { newSection, notationOf, type Section } from '../score/formats'
import { usual } from '../score/formats/rows'
import { newStation, type Station } from '../score/formats/station'
import { emptyScore, freshKey, type Score } from '../score/score'
import { DAY, type Ms } from '../units'

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
interface Item {
  label: string
  workMs: Ms | null
  reps: number | null
  eachSide: boolean
  restMs: Ms | null
  said: string
  restSaid: string
}
type Block = Record<Setting, number | null> & {
  name: string
  items: Item[]
  unread: string[]
  headings: string[]
  said: Partial<Record<Setting, string>>
}

/** @returns a score of whatever was understood; lines that start with `?` hold the rest. */
export function readPastedPlan(text: string, title = ''): Score {
  const blocks: Block[] = []
  const lead: string[] = []
  let named = title
  let open: Block | null = null
  const start = (name: string): Block => {
    const block: Block = {
      name,
      rounds: null,
      workMs: null,
      restMs: null,
      betweenMs: null,
      totalMs: null,
      items: [],
      unread: [],
      headings: [],
      said: {},
    }
    blocks.push(block)
    return block
  }
  for (const raw of text.slice(0, 400_000).split(/\r\n|\r|\n/)) {
    const bulleted = BULLET.test(raw)
    const line = raw.replace(BULLET, '').trim()
    if (!line) continue
    const colon = /^([^:]*?(?:[^\d:]|\D\d|^\d)\s*):(?!\d)\s*(.*)$/.exec(line)
    const heading = colon?.[1]?.trim() ?? ''
    if (colon && (isHeading(heading) || !colon[2]) && heading.length <= 80) {
      open = start('')
      readHeading(open, heading)
      if (colon[2]) readBody(open, colon[2])
      continue
    }
    if (!bulleted && isHeading(line) && !readsAsItem(line)) {
      const bare = bareSettings(line)
      // Settings on a line of their own belong to the block that is open, unless it has moves already.
      if (!open || open.items.length || !bare) open = start('')
      readHeading(open, line)
      continue
    }
    const body: Block | null = open ?? (readsAsItem(line) || bulleted ? start('') : null)
    if (!body) {
      if (!named && !lead.length) named = line.slice(0, 300)
      else lead.push(line)
      continue
    }
    open = body
    readBody(body, line, bulleted)
  }
  return assemble(blocks, lead, named)
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

function readHeading(block: Block, text: string): void {
  block.headings.push(text)
  let rest = text
  /** Takes what a pattern finds out of the text, as often as it stands there; what is said twice otherwise is kept by `set`. */
  const take = (pattern: RegExp, read: (found: RegExpExecArray) => void): void => {
    for (let found = pattern.exec(rest); found; found = pattern.exec(rest)) {
      rest = `${rest.slice(0, found.index)} ${rest.slice(found.index + found[0].length)}`
      read(found)
    }
  }
  take(BETWEEN, (found) => set(block, 'betweenMs', lengthIn(found[1] ?? found[2]), found[0]))
  take(ON_OFF, (found) => {
    set(block, 'workMs', lengthIn(found[1] ?? found[3]), found[0])
    set(block, 'restMs', lengthIn(found[2] ?? found[4]), found[0])
  })
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
  else block.name = name.slice(0, 300)
}

function readBody(block: Block, typed: string, bulleted = false): void {
  const between = BETWEEN.exec(typed)
  if (between) set(block, 'betweenMs', lengthIn(between[1] ?? between[2]), between[0])
  const text = between
    ? `${typed.slice(0, between.index)} ${typed.slice(between.index + between[0].length)}`.replace(
        /^[\s,;/]+|[\s,;/]+$/g,
        '',
      )
    : typed
  if (between && !/\d/.test(text)) {
    if (/\p{L}/u.test(text)) block.unread.push(text)
    return
  }
  const parts = text.split(BETWEEN_PARTS).filter(Boolean)
  // "Have fun and drink water, see you all next week!" is a sentence, commas or not.
  if (!bulleted && !/\d/.test(text) && (/[!?.]$/.test(text) || parts.some(isLong))) {
    block.unread.push(text.trim())
    return
  }
  for (const part of parts) {
    const rest = REST_ITEM.exec(part.trim())
    const last = block.items.at(-1)
    if (rest) {
      const ms = lengthIn(rest[1] ?? rest[2])
      if (ms === null || !last) block.unread.push(part.trim())
      else if (last.restMs === null) Object.assign(last, { restMs: ms, restSaid: part.trim() })
      else set(block, 'betweenMs', ms, part)
      continue
    }
    if (new RegExp(`^${LENGTH}$`, 'iu').test(part.trim())) {
      set(block, 'totalMs', lengthIn(part), part)
      continue
    }
    if (isHeading(part) && bareSettings(part) && !readsAsItem(part)) {
      readHeading(block, part)
      continue
    }
    const item = readItem(part.trim())
    const sentence = isLong(part) || /[!?]$|\.\s/.test(part)
    const plain = item && item.workMs === null && item.reps === null
    if (
      !item ||
      (plain && sentence) ||
      (plain &&
        !bulleted &&
        parts.length === 1 &&
        !block.items.length &&
        block.workMs === null &&
        !block.rounds &&
        !block.headings.some((heading) => NAMES.test(heading)))
    )
      block.unread.push(part.trim())
    else block.items.push(item)
  }
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
    .slice(0, 300)
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
  if (clock) return bounded((Number(clock[1]) * 60 + Number(clock[2])) * 1000, DAY)
  let seconds = 0
  for (const [, amount = '', unit = ''] of text.matchAll(/(\d+(?:[.,]\d+)?)\s*([a-z]*)/gi))
    seconds += Number(amount.replace(',', '.')) * (/^h/i.test(unit) ? 3600 : /^m/i.test(unit) ? 60 : 1)
  return bounded(Math.round(seconds * 1000), DAY)
}

const bounded = (value: number, most: number): number => Math.min(most, Math.max(1, Math.round(value)))

function assemble(blocks: readonly Block[], lead: readonly string[], title: string): Score {
  const score = emptyScore(title)
  const waiting = lead.map((line) => mark(line))
  for (const block of blocks) {
    const section = sectionFrom(
      block,
      score.sections.map((one) => one.key),
    )
    const unread = block.unread.map(mark)
    if (!section) {
      const body = SETTINGS.flatMap((setting) => block.said[setting] ?? []).filter(
        (said) => !block.headings.some((heading) => heading.includes(said)),
      )
      waiting.push(...block.headings.map(mark), ...body.map(mark), ...unread)
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
  const { fields, perMove = [] } = notationOf(section.format)
  const elsewhere = 'where' in section && section.where !== 'here'
  const has = (...names: string[]): boolean => !elsewhere && fields.some(({ field }) => names.includes(field))
  const byMinutes = section.format === 'minuteReps' || section.format === 'minuteTime'
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

const mark = (line: string): string => `? ${line.replace(/[\r\n]/g, ' ').slice(0, 1900)}`

function sectionFrom(block: Block, keys: readonly string[]): Section | null {
  const { items } = block
  const kind = (word: RegExp): boolean => block.headings.some((heading) => word.test(heading))
  const named = (fallback: string): [string, string] => [freshKey(block.name || fallback, keys), block.name || fallback]
  const stations = items.map((item): Station =>
    newStation(item.label, { workMs: item.workMs, reps: item.reps, sideRule: item.eachSide ? 'each' : null }),
  )
  if (!items.length) {
    if (kind(/intro|welcome|outro|talk|demo/i))
      return { ...newSection('talk', ...named('Talk')), guessMs: block.totalMs }
    if (kind(/warm[\s-]?up/i) && block.totalMs)
      return { ...newSection('warmUp', ...named('Warm-up')), where: 'viewer', reminderMs: 8000 }
    return null
  }
  if (kind(/warm[\s-]?up/i))
    return { ...newSection('warmUp', ...named('Warm-up')), workMs: block.workMs ?? 30_000, stations }
  if (kind(/cool[\s-]?down|stretch(?:es|ing)/i))
    return {
      ...newSection('coolDown', ...named('Cool-down')),
      workMs: block.workMs ?? 30_000,
      stations: stations.map((one) => ({ ...one, reps: null })),
    }
  if (kind(/tabata/i))
    return {
      ...newSection('burst', ...named('Burst')),
      workMs: block.workMs ?? 20_000,
      restMs: block.restMs ?? 10_000,
      intervals: block.rounds ?? 8,
      talkMs: 0,
      burstBreakMs: block.betweenMs ?? 0,
      leadInMs: 0,
      groups: stations.map((one, index) => [{ ...one, restMs: items[index]?.restMs ?? null }]),
    }
  if (kind(/emom|every minute/i)) {
    const minutes = block.totalMs
      ? Math.max(1, Math.round(block.totalMs / 60_000 / stations.length))
      : (block.rounds ?? 1)
    return stations.some((one) => one.reps !== null)
      ? {
          ...newSection('minuteReps', ...named('Every minute')),
          rounds: minutes,
          leadInMs: 0,
          lastRest: 'replaced',
          stations,
        }
      : {
          ...newSection('minuteTime', ...named('Every minute')),
          workMs: block.workMs ?? 40_000,
          rounds: minutes,
          leadInMs: 0,
          stations,
        }
  }
  const works = items.map((item) => item.workMs ?? block.workMs)
  if (works.every((ms) => ms === null))
    return { ...newSection('finisher', ...named('Finisher')), rounds: block.rounds ?? 1, stations }
  const workMs = block.workMs ?? usual(items.map((item) => ({ durationMs: item.workMs })))
  const restMs = block.restMs ?? usual(items.map((item) => ({ durationMs: item.restMs })))
  return {
    ...newSection('circuit', ...named('Main')),
    leadInMs: 0,
    rounds: block.rounds ?? 1,
    workMs,
    restMs,
    roundBreakMs: block.betweenMs ?? 0,
    // Rests were typed where they are; with none typed after a move there is none.
    lastRest: items.at(-1)?.restMs ? 'kept' : 'replaced',
    stations: stations.map((one, index) => {
      const own = items[index]?.restMs ?? null
      const typed = items.some((item) => item.restMs !== null)
      return {
        ...one,
        workMs: one.workMs === workMs ? null : one.workMs,
        restMs: !typed || own === restMs ? null : (own ?? (block.restMs === null ? 0 : null)),
      }
    }),
  }
}
