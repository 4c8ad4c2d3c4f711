// Ten seconds are left of work that is long enough to be glad of it.
import { SECOND } from '../../units'
import { cueTexts } from '../../words/en/cues'
import { AFTER_TONE_MS, type CueRule } from '../place'

const LEFT_MS = 10 * SECOND
const FROM_MS = 30 * SECOND
/** Said later than this, it is no longer true. */
const WINDOW_MS = 2000

export const ten: CueRule = {
  name: 'ten',
  usual: false,
  candidates: ({ segment, startMs, endMs, endKnown }) => {
    // The plan decides, where it has a length: not a few milliseconds that were filmed more or less.
    const lengthMs = segment.pace === 'fixed' ? segment.durationMs : endMs - startMs
    if (segment.kind !== 'work' || !endKnown || segment.slot || lengthMs < FROM_MS) return []
    if (endMs - startMs < 2 * LEFT_MS) return []
    const atMs = endMs - LEFT_MS
    const fromMs = atMs + AFTER_TONE_MS / 2
    return [
      { key: '', segmentId: segment.id, priority: 58, sound: 'ten', atMs },
      {
        key: 'said',
        segmentId: segment.id,
        priority: 48,
        lines: cueTexts.ten,
        atMs: fromMs,
        fromMs,
        untilMs: atMs + WINDOW_MS,
      },
    ]
  },
}
