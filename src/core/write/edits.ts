// What an edit list has of a session: one event for each interval that is shown, where it is in the footage and in the
// video, on whole frames that lie end to end.
import type { ShownSegment } from '../cut/cut'
import { frameAt } from '../time/timecode'
import type { Rate } from '../units'
import { nameOf } from '../words/en/names'

export interface Edit {
  name: string
  section: string
  /** Frames, the last one not among them; the same in the footage and in the video, which shows it as it is. */
  from: number
  to: number
}

/** @param lane of a footage that is shown as it was filmed, or of the plan itself. */
export function editsOf(lane: readonly ShownSegment[], rate: Rate): Edit[] {
  return lane.flatMap(({ segment, startMs, endMs }): Edit[] => {
    const [from, to] = [frameAt(startMs, rate), frameAt(endMs, rate)]
    const name = nameOf(segment).replace(/\s+/g, ' ')
    return to > from ? [{ name, section: segment.section.replace(/\s+/g, ' '), from, to }] : []
  })
}
