// What is done in a section, as lines of a description: made from its segments alone, so that all that viewers do can
// be read out of it again: moves in their order with sides, reps, weights and lengths, and what lies between.
import type { Segment } from '../score/segment'
import { weightText } from '../score/formats/station'
import { formatLength } from '../time/clock'
import { SECOND, type Ms } from '../units'
import { descriptionTexts as words } from '../words/en/description'
import { repsOf } from '../words/en/names'

export interface RunningOrder {
  /** How often and how long: "3 rounds of 4, 0:40 on, 0:20 off". */
  frame: string
  /** One line a move, under a heading for each round that is unlike the others. */
  lines: string[]
}

/** @param wayOf what is said behind a move's name the first time that it comes, e.g. the easier way. */
export function runningOrderOf(segments: readonly Segment[], wayOf: (work: Segment) => string): RunningOrder {
  const works = segments.filter(({ kind }) => kind === 'work')
  const usual = lengthOfAll(works)
  const passes = passesOf(works).map((pass) => ({
    ...pass,
    items: pass.works.map((work) => itemOf(work, usual === null)),
  }))
  const isByPass = passes.flatMap((pass) => pass.works).every((work, at) => work === works[at])
  const said = new Set<string>()
  const way = (work: Segment): string => {
    if (said.has(work.label)) return ''
    said.add(work.label)
    return wayOf(work)
  }
  const lineOf = ({ text, side }: Item, work: Segment): string => `- ${text}${sideText(side)}${way(work)}`
  const frame = (form: Form): string => frameOf(segments, works, { usual, passes: passes.length, form })
  const [first] = passes
  if (first && passes.every(({ items }) => sameMoves(items, first.items)) && (isByPass || areOfEach(works, passes))) {
    const lines = first.works.map((work, at) => `- ${sidesOver(passes, at)}${way(work)}`)
    return { frame: frame(isByPass ? 'passes' : 'each'), lines }
  }
  if (!isByPass) {
    const lines = works.map((work) => lineOf(itemOf(work, usual === null), work))
    return { frame: frame('row'), lines }
  }
  const lines = passes.flatMap(({ heading, items, works: own }) => [
    `${heading}:`,
    ...items.flatMap((item, at) => (own[at] ? lineOf(item, own[at]) : [])),
  ])
  return { frame: frame('passes'), lines }
}

/** All moves in each pass, all passes of each move before the next, or one thing after another. */
type Form = 'passes' | 'each' | 'row'

/** Whether all passes of a move come before the next move. */
const areOfEach = (works: readonly Segment[], passes: readonly Pass[]): boolean =>
  passes.every((pass) => pass.works.length === passes[0]?.works.length) &&
  works.every((work, at) => passes[at % passes.length]?.works[Math.floor(at / passes.length)] === work)

interface Item {
  /** Without its side. */
  text: string
  side: string
}

function itemOf(work: Segment, tellsLength: boolean): Item {
  const weight = work.weight ? `, ${weightText(work.weight)}` : ''
  const length = tellsLength && work.pace !== 'own' ? `, ${lengthText(work)}` : ''
  const way = work.reverses ? `, ${words.otherWay}` : ''
  return { text: `${work.label}${repsOf(work)}${weight}${length}${way}`, side: sideOf(work) }
}

const sideOf = ({ side, firstSide }: Segment): string =>
  side === 'switch'
    ? firstSide === 'right'
      ? words.switches.right
      : words.switches.left
    : side
      ? words.sides[side]
      : ''

const sideText = (side: string): string => (side ? `, ${side}` : '')

const sameMoves = (one: readonly Item[], other: readonly Item[]): boolean =>
  one.length === other.length && one.every(({ text }, at) => text === other[at]?.text)

/** A move of all passes, with its side: once where it never changes, else by round. */
function sidesOver(passes: readonly (Pass & { items: readonly Item[] })[], at: number): string {
  const kind = kindOf(passes[0]?.works[0])
  const sides = passes.map(({ items, number }) => ({ side: items[at]?.side ?? '', number }))
  const text = passes[0]?.items[at]?.text ?? ''
  const kinds = [...new Set(sides.map(({ side }) => side))]
  if (kinds.length < 2) return text + sideText(kinds[0] ?? '')
  const parts = kinds.map((side) =>
    words.inRounds(
      side || words.noSide,
      kind,
      sides.filter((one) => one.side === side).map(({ number }) => number),
    ),
  )
  return `${text}, ${parts.join(', ')}`
}

/** What passes are called. */
const kindOf = (work?: Segment): 'sets' | 'rounds' => (work?.sets && work.sets > 1 ? 'sets' : 'rounds')

interface Pass {
  heading: string
  number: number
  works: Segment[]
}

/** Works by set and round, in their order. */
function passesOf(works: readonly Segment[]): Pass[] {
  const passes = new Map<string, Pass>()
  for (const work of works) {
    const key = `${work.set ?? ''}/${work.round ?? ''}`
    const found = passes.get(key)
    if (found) found.works.push(work)
    else passes.set(key, { heading: headingOf(work, passes.size + 1), number: passes.size + 1, works: [work] })
  }
  return [...passes.values()]
}

function headingOf({ set, sets, round, rounds, words: own }: Segment, number: number): string {
  const parts = [
    set !== null && (sets ?? 0) > 1 ? words.counted(own.set.one, set) : '',
    round !== null && (rounds ?? 0) > 1 ? words.counted(own.round.one, round) : '',
  ].filter(Boolean)
  return parts.join(', ') || words.counted(own.round.one, number)
}

/** The length that all have; null where they differ. */
function lengthOfAll(works: readonly Segment[]): string | null {
  const lengths = new Set(works.map((work) => (work.pace === 'own' ? '' : lengthText(work))))
  return lengths.size === 1 ? ([...lengths][0] ?? null) : null
}

const inSeconds = (ms: Ms): string => formatLength(Math.round(ms / SECOND) * SECOND)

/** What a plan says of a length: a range where it is one. */
function lengthText({ pace, durationMs, minMs, maxMs }: Segment): string {
  if (pace === 'range' && maxMs !== null) return words.range(inSeconds(minMs), inSeconds(maxMs))
  return pace === 'fixed' ? inSeconds(durationMs) : words.about(inSeconds(durationMs))
}

function frameOf(
  segments: readonly Segment[],
  works: readonly Segment[],
  { usual, passes, form }: { usual: string | null; passes: number; form: Form },
): string {
  const slots = new Set(works.map(({ slot }) => slot?.ofMs ?? 0))
  const [slotMs = 0] = slots
  const slotCount = works.filter(({ slot }) => slot?.beforeMs === 0).length
  if (slots.size === 1 && slotMs > 0) return words.slots(slotCount, inSeconds(slotMs), works.length / slotCount)
  const [first] = works
  const each = works.length / Math.max(1, passes)
  const kind = kindOf(first)
  const rounds = passes > 1 && form !== 'row' ? words.passes(passes, kind) : ''
  const counted = Number.isInteger(each) && each > 1 && rounds ? words.of(rounds, each) : rounds
  const frame = form === 'each' ? words.ofEach(rounds) : counted
  return [
    frame || words.moves(works.length),
    usual ? words.on(usual) : '',
    between(segments, 'rest', words.off),
    between(segments, 'break', words.between),
  ]
    .filter(Boolean)
    .join(', ')
}

/** Rests or breaks: their one length, or from the shortest to the longest. */
function between(segments: readonly Segment[], kind: 'rest' | 'break', text: (length: string) => string): string {
  const found = segments.filter((one) => one.kind === kind)
  const known = found.filter(({ pace }) => pace === 'fixed' || pace === 'range')
  if (!known.length) return ''
  const least = Math.min(...known.map(({ minMs }) => minMs))
  const most = Math.max(...known.map(({ maxMs, durationMs }) => maxMs ?? durationMs))
  const [low, high] = [inSeconds(least), inSeconds(most)]
  return text(low === high ? low : words.range(low, high))
}
