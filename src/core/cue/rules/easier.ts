// The easier way of a move that is known, the first time that it is done.
import { cueTexts } from '../../words/en/cues'
import { COUNT_MS, type CueRule } from '../place'

const FROM_MS = 2500

export const easier: CueRule = {
  name: 'easier',
  usual: false,
  candidates: ({ segment, startMs, endMs, lane, index, cast }) => {
    const [name, more] = segment.moves
    if (segment.kind !== 'work' || name === undefined || more !== undefined) return []
    if (lane.slice(0, index).some((one) => one.segment.kind === 'work' && one.segment.moves.includes(name))) return []
    const facts = cast(name)
    if (facts.sure !== 'known' || !facts.easier) return []
    const fromMs = startMs + FROM_MS
    const lines = [cueTexts.easier(facts.easier)]
    return [
      { key: 'said', segmentId: segment.id, priority: 40, lines, atMs: fromMs, fromMs, untilMs: endMs - COUNT_MS },
    ]
  },
}
