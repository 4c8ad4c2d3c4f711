// Title and chapters as the metadata file that ffmpeg reads and writes.
import type { ShownSegment } from '../cut/cut'
import type { Ms } from '../units'
import { chaptersOf, type Chapter } from './chapters'

/** @param lane in the published video's own time. */
export const writeFfmetadata = (lane: readonly ShownSegment[], title: string): string =>
  chapterMetadata(chaptersOf(lane), { endMs: lane.at(-1)?.endMs ?? 0, title })

/** @param about the whole: where it ends, and what it is called. */
export function chapterMetadata(chapters: readonly Chapter[], { endMs, title }: { endMs: Ms; title: string }): string {
  const blocks = chapters.map(({ atMs, title: name }, at) =>
    [
      '[CHAPTER]',
      'TIMEBASE=1/1000',
      `START=${Math.round(atMs)}`,
      `END=${Math.round(chapters[at + 1]?.atMs ?? endMs)}`,
      `title=${escaped(name)}`,
    ].join('\n'),
  )
  return `${[';FFMETADATA1', `title=${escaped(title)}`, ...blocks].join('\n')}\n`
}

/** What the format reserves has a backslash before it, a line break too. */
const escaped = (text: string): string => text.replace(/[\r\n]+/g, ' ').replace(/[=;#\\]/g, '\\$&')
