// Work begins.
import type { CueRule } from '../place'

export const go: CueRule = {
  name: 'go',
  usual: true,
  // At a start that is only guessed nothing sounds.
  candidates: ({ segment, startMs, startKnown }) =>
    segment.kind === 'work' && startKnown
      ? [{ key: '', segmentId: segment.id, priority: 100, sound: 'go', atMs: startMs }]
      : [],
}
