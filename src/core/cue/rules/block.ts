// A section begins: its title, and which of the blocks it is.
import { blockOf } from '../../words/en/names'
import { cueTexts } from '../../words/en/cues'
import { AFTER_TONE_MS, COUNT_MS, type CueRule } from '../place'

export const block: CueRule = {
  name: 'block',
  usual: true,
  candidates: ({ segment, startMs, endMs, endKnown, opensSection, lane }) => {
    const sections = new Set(lane.filter((one) => one.segment.kind !== 'talk').map((one) => one.segment.sectionKey))
    if (!opensSection || segment.kind === 'work' || !segment.section || sections.size < 2) return []
    const lines = cueTexts.block(segment.section, blockOf(segment))
    const atMs = startMs + AFTER_TONE_MS
    const untilMs = endMs - (endKnown ? COUNT_MS : 0)
    return [{ key: 'said', segmentId: segment.id, priority: 65, lines, atMs, fromMs: atMs, untilMs }]
  },
}
