// Chapter lines for a description: a time and a name per line, the first at 0:00, none closer than ten seconds.
import type { ShownSegment } from '../cut/cut'
import { formatClock } from '../time/clock'
import type { Ms } from '../units'
import { roundOf, setOf } from '../words/en/names'

/** Video hosts commonly ignore a list whose chapters are shorter than this. */
const SHORTEST: Ms = 10_000

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

/** One per section and round, in the published video's time. */
export function chaptersOf(lane: readonly ShownSegment[]): Chapter[] {
  const kept: Chapter[] = []
  for (const chapter of changesOfTitle(lane)) {
    const last = kept.at(-1)
    if (!last)
      kept.push(...(chapter.atMs < SHORTEST ? [{ ...chapter, atMs: 0 }] : [{ atMs: 0, title: 'Start' }, chapter]))
    else if (chapter.atMs - last.atMs >= SHORTEST) kept.push(chapter)
    else last.title += ` / ${chapter.title}`
  }
  return kept.map(({ atMs, title }) => ({ atMs, title: title.replace(/\s+/g, ' ') }))
}

function changesOfTitle(lane: readonly ShownSegment[]): Chapter[] {
  const changes: Chapter[] = []
  let open: string | null = null
  for (const { segment, startMs } of lane) {
    if (segment.kind === 'rest' || segment.kind === 'lead' || (segment.kind === 'break' && segment.round !== null))
      continue
    const title = [segment.section, setOf(segment) || roundOf(segment)].filter(Boolean).join(', ') || 'Workout'
    if (title !== open) changes.push({ atMs: startMs, title })
    open = title
  }
  return changes
}
