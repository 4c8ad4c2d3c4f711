// The session as a list to read: every interval with its start and its length, under the heading of its section.
import type { ShownSegment } from '../cut/cut'
import { weightText } from '../score/formats/station'
import { formatClock, formatLength } from '../time/clock'
import { countersOf, nameOf, repsOf } from '../words/en/names'

/** @param lane in the published video's own time, or as planned. */
export function writeMarkdown(lane: readonly ShownSegment[], title: string): string {
  const lines = [`# ${escaped(title)}`]
  let section: string | null = null
  for (const { segment, startMs, endMs } of lane) {
    if (endMs <= startMs) continue
    if (segment.sectionKey !== section) lines.push('', `## ${escaped(segment.section)}`, '')
    section = segment.sectionKey
    const about = segment.estimated && endMs - startMs === segment.durationMs ? 'about ' : ''
    const weight = segment.weight ? `, ${weightText(segment.weight)}` : ''
    const where = countersOf(segment).join(', ')
    const length = formatLength(Math.round((endMs - startMs) / 1000) * 1000)
    lines.push(
      `- ${formatClock(startMs)} ${escaped(`${nameOf(segment)}${repsOf(segment)}${weight}`)}, ${about}${length}${where ? ` (${escaped(where)})` : ''}`,
    )
  }
  return `${lines.join('\n')}\n`
}

/** What Markdown would take for its own, and line breaks. */
const escaped = (text: string): string => text.replace(/\s+/g, ' ').replace(/[\\`*_[\]<>#|~]/g, '\\$&')
