// How many are wanted, as counted work begins.
import { cueTexts } from '../../words/en/cues'
import { AFTER_TONE_MS, type CueRule } from '../place'

const WINDOW_MS = 6000

export const reps: CueRule = {
  name: 'reps',
  usual: true,
  candidates: ({ segment, startMs, endMs, startKnown }) => {
    if (segment.kind !== 'work' || segment.reps === null || segment.moves.length > 1 || !startKnown) return []
    const atMs = startMs + AFTER_TONE_MS
    const lines = cueTexts.reps(segment.reps, segment.repIs)
    const untilMs = Math.min(endMs, startMs + WINDOW_MS)
    return [{ key: 'said', segmentId: segment.id, priority: 45, lines, atMs, fromMs: atMs, untilMs }]
  },
}
