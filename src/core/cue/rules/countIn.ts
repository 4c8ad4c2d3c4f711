// Three pips before each change whose instant is known.
import type { Ms } from '../../units'
import type { CueRule } from '../place'

const PIPS_BEFORE: readonly Ms[] = [3000, 2000, 1000]
/** A pip closer than this to the start of its own interval would run into the tone there. */
const CLEAR_OF_START: Ms = 500

export const countIn: CueRule = {
  name: 'countIn',
  usual: true,
  candidates: ({ segment, startMs, endMs, endKnown }) =>
    segment.kind === 'talk' || !endKnown
      ? []
      : PIPS_BEFORE.filter((lead) => endMs - lead >= startMs + CLEAR_OF_START).map((lead) => ({
          ...{ key: String(lead / 1000), segmentId: segment.id, priority: 90, sound: 'pip', atMs: endMs - lead },
        })),
}
