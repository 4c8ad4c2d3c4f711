// Work is over for now. Talk is not announced, but its start ends what came before, as that of a lead-in ends work.
import type { CueRule, Place } from '../place'

export const rest: CueRule = {
  name: 'rest',
  usual: true,
  candidates: (place) =>
    place.startKnown && endsSomething(place)
      ? [{ key: '', segmentId: place.segment.id, priority: 100, sound: 'rest', atMs: place.startMs }]
      : [],
}

function endsSomething({ segment, before }: Place): boolean {
  switch (segment.kind) {
    case 'work':
      return false
    case 'rest':
    case 'break':
      return true
    case 'lead':
      return before?.kind === 'work'
    case 'talk':
      return before !== null && before.kind !== 'talk'
  }
}
