// An edit decision list in the form CMX 3600, as editing programs read it: an event for each interval, with its name as
// clip name and marker.
import type { ShownSegment } from '../cut/cut'
import { clipped } from '../text'
import { isDropFrame, timecodeOf } from '../time/timecode'
import type { Rate } from '../units'
import { editsOf } from './edits'

/** The format counts its events with three digits. */
const MOST_EVENTS = 999
const LONGEST_TITLE = 70

/** @param lane in the video's own time. */
export function writeEdl(lane: readonly ShownSegment[], title: string, rate: Rate): string {
  const code = (frame: number): string => timecodeOf(frame, rate)
  const events = editsOf(lane, rate).slice(0, MOST_EVENTS)
  return [
    `TITLE: ${clipped(title.replace(/\s+/g, ' '), LONGEST_TITLE)}`,
    `FCM: ${isDropFrame(rate) ? 'DROP FRAME' : 'NON-DROP FRAME'}`,
    '',
    ...events.flatMap(({ name, from, to }, at) => [
      `${String(at + 1).padStart(3, '0')}  AX       B     C        ${code(from)} ${code(to)} ${code(from)} ${code(to)}`,
      `* FROM CLIP NAME: ${name}`,
      `* LOC: ${code(from)} YELLOW ${name}`,
    ]),
    '',
  ].join('\n')
}
