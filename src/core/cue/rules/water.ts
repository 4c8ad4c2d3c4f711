// A pause in which there is time to drink.
import { SECOND } from '../../units'
import { cueTexts } from '../../words/en/cues'
import { AFTER_TONE_MS, COUNT_MS, type CueRule } from '../place'

export const WATER_MS = 25 * SECOND

export const water: CueRule = {
  name: 'water',
  usual: true,
  candidates: ({ segment, startMs, endMs }) => {
    if (segment.kind !== 'break' || endMs - startMs < WATER_MS) return []
    const fromMs = startMs + AFTER_TONE_MS
    const untilMs = endMs - COUNT_MS
    return [
      { key: 'said', segmentId: segment.id, priority: 30, lines: [cueTexts.water], atMs: fromMs, fromMs, untilMs },
    ]
  },
}
