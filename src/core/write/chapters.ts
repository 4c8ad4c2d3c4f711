// Chapter lines for a description, as hosts take them: the first at 0:00, three or more, ten seconds and more each, no
// name twice, and not so many that nobody reads them.
import type { ShownSegment } from '../cut/cut'
import { formatClock } from '../time/clock'
import { SECOND, type Ms } from '../units'
import { nameOf, roundOf, setOf } from '../words/en/names'

/** Video hosts commonly ignore a list whose chapters are shorter than this, or that has fewer than so many. */
const SHORTEST: Ms = 10_000
const FEWEST = 3
/** More are a list, and no chapters. */
const MOST = 25

export interface Chapter {
  atMs: Ms
  /** Without line breaks. */
  title: string
}

/** Each line ends with a line break. */
export const writeChapters = (lane: readonly ShownSegment[]): string =>
  chaptersOf(lane)
    .map(({ atMs, title }) => `${formatClock(atMs)} ${title}\n`)
    .join('')

/** So many moves are chapters; more are a list of intervals. */
const MOST_MOVES = 12

/** Reads what `writeChapters` has written; lines that say no time are left out. */
export const readChapters = (text: string): Chapter[] =>
  text.split('\n').flatMap((line) => {
    const [, clock = '', title = ''] = /^(\d+(?::\d{1,2}){1,2}) (.+)$/.exec(line.trim()) ?? []
    const seconds = clock.split(':').reduce((sum, part) => sum * 60 + Number(part), 0)
    return clock ? [{ atMs: seconds * SECOND, title }] : []
  })

/** What a chapter is called after, from fine to coarse. */
const TITLES: readonly ((laid: ShownSegment) => string)[] = [
  ({ segment }) => [segment.section, nameOf(segment)].filter(Boolean).join(': '),
  ({ segment }) => [segment.section, setOf(segment) || roundOf(segment)].filter(Boolean).join(', '),
  ({ segment }) => segment.section,
]
const ROUNDS = 1

/**
 * One per section and round, in the published video's time; one per move where that is too few, one per section where
 * it is too many.
 */
export function chaptersOf(lane: readonly ShownSegment[]): Chapter[] {
  const levels = TITLES.map((titleOf) => spaced(changesOfTitle(lane, titleOf)))
  const [moves = [], rounds = [], sections = []] = levels
  const usual = levels[ROUNDS] ?? rounds
  if (usual.length > MOST) return named(thinned(sections))
  // Two chapters are none to a host; moves are, where there are not too many of them.
  return named(usual.length < FEWEST && moves.length >= FEWEST && moves.length <= MOST_MOVES ? moves : usual)
}

/** None closer than ten seconds, the first at 0:00. */
function spaced(changes: readonly Chapter[]): Chapter[] {
  const kept: Chapter[] = []
  for (const chapter of changes) {
    const last = kept.at(-1)
    if (!last)
      kept.push(...(chapter.atMs < SHORTEST ? [{ ...chapter, atMs: 0 }] : [{ atMs: 0, title: 'Start' }, chapter]))
    else if (chapter.atMs - last.atMs >= SHORTEST) kept.push({ ...chapter })
    else last.title += ` / ${chapter.title}`
  }
  return kept
}

/** Every second one, or fewer, until there are few enough. */
function thinned(chapters: readonly Chapter[]): Chapter[] {
  const step = Math.ceil(chapters.length / MOST)
  return chapters.filter((_, at) => at % step === 0)
}

/** No line breaks, and no name twice: what comes again is numbered. */
function named(chapters: readonly Chapter[]): Chapter[] {
  const times = new Map<string, number>()
  return chapters.map(({ atMs, title }) => {
    const plain = title.replace(/\s+/g, ' ').trim() || 'Workout'
    const before = times.get(plain) ?? 0
    times.set(plain, before + 1)
    return { atMs, title: before ? `${plain} (${before + 1})` : plain }
  })
}

function changesOfTitle(lane: readonly ShownSegment[], titleOf: (laid: ShownSegment) => string): Chapter[] {
  const changes: Chapter[] = []
  let open: string | null = null
  for (const laid of lane) {
    const { segment, startMs, endMs } = laid
    const isBetween =
      segment.kind === 'rest' || segment.kind === 'lead' || (segment.kind === 'break' && segment.round !== null)
    if (isBetween || endMs <= startMs) continue
    const title = titleOf(laid)
    if (title !== open) changes.push({ atMs: startMs, title })
    open = title
  }
  return changes
}
