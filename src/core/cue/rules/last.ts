// The last round begins, or the last work of all: after the tone that begins it.
import { cueTexts } from '../../words/en/cues'
import { beginsLastRound } from '../moments'
import { AFTER_TONE_MS, type CueRule } from '../place'

const WINDOW_MS = 6000

export const last: CueRule = {
  name: 'last',
  usual: true,
  candidates: ({ segment, startMs, startKnown, isLastWork, lane }) => {
    const several = lane.filter((one) => one.segment.kind === 'work').length > 1
    if (!startKnown || !((isLastWork && several) || beginsLastRound(segment))) return []
    const line = isLastWork ? cueTexts.lastOne : cueTexts.lastOf(segment.words.round.one)
    const atMs = startMs + AFTER_TONE_MS
    const fromMs = atMs + AFTER_TONE_MS
    return [
      { key: '', segmentId: segment.id, priority: 55, sound: 'last', atMs },
      {
        key: 'said',
        segmentId: segment.id,
        priority: 60,
        lines: [line],
        atMs: fromMs,
        fromMs,
        untilMs: startMs + WINDOW_MS,
      },
    ]
  },
}
