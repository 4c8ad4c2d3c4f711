// Cues: what is sounded, and when. Three pips count down to each change, which then has a tone of its own.
import { endIsKnown, type ShownSegment } from '../cut/cut'
import type { Ms } from '../units'

export type Voice = 'pip' | 'go' | 'rest' | 'switch'

export interface Cue {
  atMs: Ms
  voice: Voice
  segmentId: string
}

const PIPS_BEFORE: readonly Ms[] = [3000, 2000, 1000]
/** A pip closer than this to the start of its own interval would run into the tone there. */
const CLEAR_OF_START: Ms = 500

/** @returns cues in order of time. Talk is neither counted down nor announced, but its start ends what came before. */
export function cuesFor(lane: readonly ShownSegment[]): Cue[] {
  const cues: Cue[] = []
  lane.forEach(({ segment, startMs, endMs }, index) => {
    if (endMs <= startMs) return
    const before = lane[index - 1]
    // At an end that is only guessed nothing sounds.
    const known = index === 0 || endIsKnown(lane, index - 1)
    const opening = known ? voiceAtStart(segment.kind, before?.segment.kind) : null
    if (opening) cues.push({ atMs: startMs, voice: opening, segmentId: segment.id })
    if (segment.kind === 'talk') return
    if (segment.side === 'switch' || segment.reverses)
      cues.push({ atMs: middleOf(startMs, endMs), voice: 'switch', segmentId: segment.id })
    if (!endIsKnown(lane, index)) return
    for (const lead of PIPS_BEFORE) {
      if (endMs - lead >= startMs + CLEAR_OF_START)
        cues.push({ atMs: endMs - lead, voice: 'pip', segmentId: segment.id })
    }
    if (index === lane.length - 1) cues.push({ atMs: endMs, voice: 'rest', segmentId: segment.id })
  })
  return cues.sort((one, other) => one.atMs - other.atMs)
}

function voiceAtStart(
  kind: ShownSegment['segment']['kind'],
  before: ShownSegment['segment']['kind'] | undefined,
): Voice | null {
  switch (kind) {
    case 'work':
      return 'go'
    case 'rest':
    case 'break':
      return 'rest'
    case 'lead':
      return before === 'work' ? 'rest' : null
    case 'talk':
      return before && before !== 'talk' ? 'rest' : null
  }
}

/** Where the side changes in an interval of two halves. */
export const middleOf = (startMs: Ms, endMs: Ms): Ms => Math.round((startMs + endMs) / 2)
