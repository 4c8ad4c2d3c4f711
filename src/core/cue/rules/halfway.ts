// Half of the work is over.
import { cueTexts } from '../../words/en/cues'
import { middleIn, middleOf } from '../moments'
import { AFTER_TONE_MS, type CueRule } from '../place'

const WINDOW_MS = 3000

export const halfway: CueRule = {
  name: 'halfway',
  usual: true,
  candidates: (place) => {
    const { segment, startMs, endMs, endKnown } = place
    if (!endKnown || middleIn(place) !== 'halfway') return []
    const atMs = middleOf(startMs, endMs)
    const fromMs = atMs + AFTER_TONE_MS / 2
    return [
      { key: '', segmentId: segment.id, priority: 60, sound: 'halfway', atMs },
      {
        key: 'said',
        segmentId: segment.id,
        priority: 50,
        lines: [cueTexts.halfway],
        atMs: fromMs,
        fromMs,
        untilMs: atMs + WINDOW_MS,
      },
    ]
  },
}
