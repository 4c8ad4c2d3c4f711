// All of it is over.
import type { CueRule } from '../place'

export const end: CueRule = {
  name: 'end',
  usual: true,
  candidates: ({ segment, endMs, endKnown, index, lane }) =>
    index === lane.length - 1 && segment.kind !== 'talk' && endKnown
      ? [{ key: '', segmentId: segment.id, priority: 100, sound: 'end', atMs: endMs }]
      : [],
}
