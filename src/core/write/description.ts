// The description of a published video: what is promised and what it is, all moves with their times and easier ways,
// settings for a timer of one's own, chapters, cautions and credits; in plain text, as hosts take it.
import type { ShownSegment } from '../cut/cut'
import { withRepeats } from '../score/again'
import { castOf, type Cast } from '../score/cast'
import { partOf, type Section } from '../score/formats'
import type { Part as SectionPart } from '../score/formats/format'
import { isReminder } from '../score/formats/outside'
import type { Score } from '../score/score'
import { formatClock, formatLength } from '../time/clock'
import { weightText } from '../score/formats/station'
import { sum } from '../sum'
import { SECOND, type Ms } from '../units'
import { descriptionTexts as words } from '../words/en/description'
import { writeChapters } from './chapters'
import { runningOrderOf } from './runningOrder'

/** Letters that hosts commonly take. */
export const MOST_LETTERS = 5000

interface Described {
  score: Score
  /** In the published video's own time. */
  shown: readonly ShownSegment[]
  /** Names of the pieces that play. */
  music: readonly string[]
}

/** What is left out first where a description is too long, one after the other. */
const LEFT_OUT = ['easier', 'sections', 'chapters'] as const
type Part = (typeof LEFT_OUT)[number]

/** Never longer than hosts take. */
export function writeDescription(of: Described): string {
  const left = new Set<Part>()
  let text = written(of, left)
  for (const part of LEFT_OUT) {
    if (text.length <= MOST_LETTERS) break
    left.add(part)
    text = written(of, left)
  }
  return text.length <= MOST_LETTERS ? text : `${text.slice(0, MOST_LETTERS - 4).toWellFormed()}\n...`
}

function written({ score, shown, music }: Described, left: ReadonlySet<Part>): string {
  const cast = castOf(score.moves)
  const { caution, series } = score
  const paragraphs = [
    [score.title.trim(), promiseOf(score, shown)],
    [gearOf(shown, cast), ...outsideOf(shown)],
    ...(left.has('sections') ? [] : sectionsOf(score, shown, { cast, easier: !left.has('easier') })),
    left.has('chapters') ? [] : [words.chapters, writeChapters(shown).trim()],
    caution === 'both' || caution === 'description' ? [words.caution, words.cautionText] : [],
    music.length ? [words.music(music)] : [],
    series.next ? [series.name ? words.nextIn(series.name, series.next) : words.next(series.next)] : [],
  ]
  return `${paragraphs
    .map((lines) => lines.filter(Boolean).join('\n'))
    .filter(Boolean)
    .join('\n\n')}\n`
}

/** What is promised is told by what it is: a length that nobody keeps is no promise. */
function promiseOf(score: Score, shown: readonly ShownSegment[]): string {
  const wholeMs = shown.at(-1)?.endMs ?? 0
  const workMs = sum(
    shown.filter(({ segment }) => segment.kind === 'work').map(({ startMs, endMs }) => endMs - startMs),
  )
  if (score.promiseMs !== null && score.promiseOf === 'workout') {
    const outside = new Set(score.sections.filter((one) => OUTSIDE.has(partOf(one) ?? 'main')).map(({ key }) => key))
    const workoutMs = sum(
      shown
        .filter(({ segment }) => segment.kind !== 'talk' && !outside.has(segment.sectionKey))
        .map(({ startMs, endMs }) => endMs - startMs),
    )
    return words.workoutLengths(
      ...([inSeconds(wholeMs), inSeconds(workMs), inSeconds(score.promiseMs), inSeconds(workoutMs)] as const),
    )
  }
  return words.lengths(
    inSeconds(wholeMs),
    inSeconds(workMs),
    score.promiseMs === null ? null : inSeconds(score.promiseMs),
  )
}

/** Parts that a promise of the workout leaves out. */
const OUTSIDE: ReadonlySet<SectionPart> = new Set(['warmUp', 'coolDown', 'talk'])

const inSeconds = (ms: Ms): string => formatLength(Math.round(ms / SECOND) * SECOND)

function gearOf(shown: readonly ShownSegment[], cast: Cast): string {
  const gear = new Set(
    shown.flatMap(({ segment }) =>
      segment.moves.map(cast).flatMap(({ sure, gear: own }) => (sure === 'known' ? own : [])),
    ),
  )
  const weights = new Set(shown.flatMap(({ segment }) => (segment.weight ? [weightText(segment.weight)] : [])))
  // What is known to weigh so much says more than that something has weight.
  if (weights.size) gear.delete('weight')
  return gear.size + weights.size ? words.gear([...gear, ...(weights.size ? [words.weights([...weights])] : [])]) : ''
}

/** Where to warm up and cool down, where that is not in the video. */
const outsideOf = (shown: readonly ShownSegment[]): string[] =>
  shown.filter(({ segment }) => isReminder(segment)).map(({ segment }) => segment.label)

function sectionsOf(score: Score, shown: readonly ShownSegment[], how: { cast: Cast; easier: boolean }): string[][] {
  return withRepeats(score).sections.flatMap((section): string[][] => {
    const own = shown.filter(({ segment, startMs, endMs }) => segment.sectionKey === section.key && endMs > startMs)
    const works = own.filter(({ segment }) => segment.kind === 'work')
    // Not from the count-in on: that is where its chapter begins, too.
    const first = own.find(({ segment }) => segment.kind !== 'lead')
    if (!works.length || !first) return []
    const segments = own.map(({ segment }) => segment)
    const { frame, lines } = runningOrderOf(segments, ({ moves }) => wayOf(moves, how))
    // No line but a chapter begins with a time: a host would take it for one.
    return [[`${headOf(section)}, ${words.from(formatClock(first.startMs))}: ${frame}`, ...lines]]
  })
}

/** The easier way of a move that stands alone and is known. */
function wayOf(moves: readonly string[], { cast, easier }: { cast: Cast; easier: boolean }): string {
  const facts = moves.length === 1 ? cast(moves[0] ?? '') : null
  return easier && facts?.sure === 'known' && facts.easier ? ` (${words.easier(facts.easier)})` : ''
}

const headOf = (section: Section): string => section.name || words.parts[partOf(section) ?? 'main']
