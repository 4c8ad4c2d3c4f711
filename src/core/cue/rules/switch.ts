// The side, or the way, changes in the middle. Without being told, nobody would know.
import { cueTexts } from '../../words/en/cues'
import { middleIn, middleOf } from '../moments'
import { AFTER_TONE_MS, type CueRule } from '../place'

/** It helps nobody later than this. */
const WINDOW_MS = 2500

export const switchSides: CueRule = {
  name: 'switch',
  usual: true,
  candidates: (place) => {
    const { segment, startMs, endMs } = place
    const middle = middleIn(place)
    if (middle !== 'otherSide' && middle !== 'otherWay') return []
    const atMs = middleOf(startMs, endMs)
    const lines = middle === 'otherSide' ? cueTexts.otherSide(segment.firstSide) : [cueTexts.otherWay]
    const said = { lines, atMs: atMs + AFTER_TONE_MS / 2, fromMs: atMs + AFTER_TONE_MS / 2, untilMs: atMs + WINDOW_MS }
    return [
      { key: '', segmentId: segment.id, priority: 100, sound: 'switch', atMs },
      { key: 'said', segmentId: segment.id, priority: 85, ...said },
    ]
  },
}
