// The tones of a session by themselves, for whoever lays them under something of their own.
import { cuesFor } from '../cue/cues'
import { USUAL_CUES } from '../cue/wishes'
import type { ShownSegment } from '../cut/cut'
import type { Ms, Samples } from '../units'
import { gainOf } from './loudness'
import { MIX_RATE, USUAL_MIX } from './mix'
import { CueTrack, type Heard } from './track'
import { tone } from './voiced'

const BLOCK: Samples = MIX_RATE * 10

/** Yields mono blocks at `MIX_RATE` that together are exactly `lengthMs` long. */
export function* tonesAlone(lane: readonly ShownSegment[], lengthMs: Ms): Generator<Float32Array> {
  const gain = gainOf(USUAL_MIX.cueLu)
  const tones = new Map<string, Float32Array>()
  const heard: Heard = ({ sound }) => {
    if (sound === null) return null
    const known = tones.get(sound) ?? tone(USUAL_CUES.family, sound, MIX_RATE).map((one) => one * gain)
    tones.set(sound, known)
    return known
  }
  const track = new CueTrack(cuesFor(lane), heard, MIX_RATE)
  const total: Samples = Math.round((lengthMs * MIX_RATE) / 1000)
  for (let at = 0; at < total; at += BLOCK) yield track.next(Math.min(BLOCK, total - at))
}
