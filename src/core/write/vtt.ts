// WebVTT captions of the cues: each interval named while it runs, with its side and length.
import type { ShownSegment } from '../cut/cut'
import type { Ms } from '../units'
import { nameOf, roundOf } from '../words/en/names'

/** @param lane in the published video's own time. Intervals shorter than a tenth of a second and talk are left out. */
export function writeVtt(lane: readonly ShownSegment[]): string {
  const blocks = lane.flatMap((laid, index) => {
    const { segment, startMs, endMs } = laid
    if (segment.kind === 'talk' || endMs - startMs < 100) return []
    return [
      `${segment.row}\n${stamp(startMs)} --> ${stamp(endMs)}\n${lines(laid, lane[index + 1])
        .map(escapeText)
        .join('\n')}`,
    ]
  })
  return ['WEBVTT', ...blocks].join('\n\n') + '\n'
}

function lines({ segment, startMs, endMs }: ShownSegment, next: ShownSegment | undefined): string[] {
  const seconds = Math.round((endMs - startMs) / 1000)
  // A guess stays a guess until footage says otherwise.
  const planned = segment.estimated && endMs - startMs === segment.durationMs
  const range = planned && segment.pace === 'range' && segment.maxMs !== null
  const long = range
    ? `${segment.minMs / 1000} to ${(segment.maxMs ?? 0) / 1000} seconds`
    : `${planned ? 'about ' : ''}${seconds} ${seconds === 1 ? 'second' : 'seconds'}`
  const first = `${nameOf(segment)} (${long})`
  const coming = next && next.segment.kind === 'work' ? `Next: ${nameOf(next.segment)}` : ''
  return [first, segment.kind === 'work' ? roundOf(segment) : coming].filter(Boolean)
}

function stamp(ms: Ms): string {
  const pad = (value: number, width = 2): string => String(value).padStart(width, '0')
  return `${pad(Math.floor(ms / 3_600_000))}:${pad(Math.floor(ms / 60_000) % 60)}:${pad(Math.floor(ms / 1000) % 60)}.${pad(ms % 1000, 3)}`
}

/** The three characters that WebVTT cue text reserves, and what would end a line or a cue before its time. */
function escapeText(text: string): string {
  return text
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/[\r\n\u2028\u2029\0]+/g, ' ')
}
