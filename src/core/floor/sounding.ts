// Everything that is to be heard of a session from an instant on, until a segment waits for somebody.
import type { Cue } from '../cue/cue'
import { cueSheet } from '../cue/cues'
import { USUAL_CUES, type CueWishes } from '../cue/wishes'
import type { Segment } from '../score/segment'
import { STOP_CODE } from '../sound/chirp'
import type { Ms } from '../units'
import { aheadOf } from './ahead'
import { earTrack, type Said } from './ear'
import type { FloorState } from './machine'

/** What else viewers hear is said to the coach, and would only be heard twice. */
export const FLOOR_CUES: CueWishes = { ...USUAL_CUES, rules: { halfway: false, last: false } }

export interface Sounding {
  cues: readonly Cue[]
  said: Said[]
  /** Changes by their numbers in the plan, which chirps bear; none beyond what a chirp can bear. */
  chirps: { atMs: Ms; code: number }[]
}

/** All in order of time. @param places the place of each segment, by its id. */
export function soundingOf(
  segments: readonly Segment[],
  places: ReadonlyMap<string, number>,
  state: FloorState,
): Sounding {
  const lane = aheadOf(segments, state)
  const begun = state.phase === 'countingIn' ? lane.slice(1) : lane
  return {
    cues: cueSheet(lane, { wishes: FLOOR_CUES }).cues,
    said: earTrack(lane),
    chirps: begun.flatMap(({ segment, startMs, endMs }) => {
      const code = (places.get(segment.id) ?? -1) + 1
      return code > 0 && code < STOP_CODE && endMs > startMs ? [{ atMs: startMs, code }] : []
    }),
  }
}
