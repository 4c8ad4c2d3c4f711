// Captions of the cues, whatever format they are written in: each interval named while it runs, with its side and
// length.
import type { ShownSegment } from '../cut/cut'
import type { Ms } from '../units'
import { nameOf, roundOf } from '../words/en/names'

export interface Caption {
  /** Of its segment in the running order, from 1 on. */
  row: number
  fromMs: Ms
  toMs: Ms
  /** Without line breaks in them. */
  lines: string[]
}

/** What lasts less cannot be read. */
const SHORTEST_MS: Ms = 100

/** @param lane in the published video's own time. What is too short and talk are left out. */
export const captionsOf = (lane: readonly ShownSegment[]): Caption[] =>
  lane.flatMap((laid, index): Caption[] => {
    const { segment, startMs, endMs } = laid
    if (segment.kind === 'talk' || endMs - startMs < SHORTEST_MS) return []
    return [{ row: segment.row, fromMs: startMs, toMs: endMs, lines: linesOf(laid, lane[index + 1]).map(onOneLine) }]
  })

function linesOf({ segment, startMs, endMs }: ShownSegment, next: ShownSegment | undefined): string[] {
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

/** What would end a line or a caption before its time. */
const onOneLine = (text: string): string => text.replace(/[\r\n\u2028\u2029\0]+/g, ' ')

const pad = (value: number, width = 2): string => String(value).padStart(width, '0')

/** "00:01:05.250", with whatever stands before the fraction. */
export const stamp = (ms: Ms, point: '.' | ','): string =>
  `${pad(Math.floor(ms / 3_600_000))}:${pad(Math.floor(ms / 60_000) % 60)}:${pad(Math.floor(ms / 1000) % 60)}${point}${pad(Math.floor(ms) % 1000, 3)}`
