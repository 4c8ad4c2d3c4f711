// A list copied from a video's chapters: "0:00 Intro", "1:30 Warm-up" ... Lengths follow from the next line's time.
import { bareSection, newList, type Section } from '../../score/formats'
import { newRow, type ListRow } from '../../score/formats/row'
import { newStation } from '../../score/formats/station'
import type { FreshKeys } from '../../score/score'
import { topicOf } from './lines'
import { mark } from './block'
import { FEWEST_STAMPS, stampOf } from './stamps'
import { tokensOf, type Token } from './tokens'

interface Chapter {
  atMs: number
  text: string
  tokens: Token[]
}

/** @returns null where the text is no such list; `tokens` of all lines, those outside the list kept. */
export function readChapters(
  lines: readonly string[],
  keys: FreshKeys,
): { sections: Section[]; tokens: Token[]; others: string[] } | null {
  const chapters: Chapter[] = []
  const tokens: Token[] = []
  const others: string[] = []
  lines.forEach((line, index) => {
    const found = stampOf(line)
    const own = tokensOf(line, index)
    tokens.push(...own)
    if (!found) {
      mark(own, 'kept', 'remark')
      if (line.trim()) others.push(line.trim())
      return
    }
    chapters.push({ ...found, tokens: own })
  })
  const rising = chapters.every(({ atMs }, at) => at === 0 || atMs > (chapters[at - 1]?.atMs ?? 0))
  const few = chapters.length < FEWEST_STAMPS || chapters.length < others.length
  if (few || !rising || chapters[0]?.atMs !== 0) return null
  return { sections: sectionsOf(chapters, keys), tokens, others }
}

function sectionsOf(chapters: readonly Chapter[], keys: FreshKeys): Section[] {
  const sections: Section[] = []
  chapters.forEach(({ atMs, text, tokens }, at) => {
    mark(tokens, 'used', 'chapter')
    const next = chapters[at + 1]
    const topic = topicOf(text)
    const lengthMs = next ? next.atMs - atMs : null
    if (topic === 'talk')
      return void sections.push({ ...bareSection('talk', keys.take(text), text), guessMs: lengthMs })
    // The last line only says where the video ends, unless somebody talks there.
    if (lengthMs === null) return
    if (topic === 'warmUp' || topic === 'coolDown') {
      const station = newStation('', { workMs: lengthMs })
      return void sections.push({ ...bareSection(topic, keys.take(text), text), stations: [station] })
    }
    const row: Partial<ListRow> =
      topic === 'break'
        ? { kind: /rest/i.test(text) ? 'rest' : 'break', label: /^(?:rest|break|pause)$/i.test(text) ? '' : text }
        : { kind: 'work', label: text }
    const open = sections.at(-1)
    const list = open && 'rows' in open ? open : newList(keys.take('Main'), 'Main')
    if (list !== open) sections.push(list)
    list.rows.push(newRow({ ...row, durationMs: lengthMs }))
  })
  return sections
}
