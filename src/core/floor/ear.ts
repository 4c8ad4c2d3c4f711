// The ear track: what is said to the coach between the cues, a little after or before the changes, so that no word runs
// over a tone. Decided here as text and instants; whoever speaks it has to be able to say it in that time.
import { middleOf } from '../cue/moments'
import { asPlanned, endIsKnown, type ShownSegment } from '../cut/cut'
import type { Segment } from '../score/segment'
import { SECOND, type Ms } from '../units'
import { earTexts } from '../words/en/floor'

export interface Said {
  atMs: Ms
  text: string
}

/** After the tone of a change. */
const AFTER_TONE_MS: Ms = 700
/** Shorter than this, what comes next is named and nothing more. */
const ROOM_FOR_MORE_MS: Ms = 9 * SECOND
/** Numbers are said this long before the end, in work that lasts at least so long. */
const NUMBERS: readonly { leftMs: Ms; atLeastMs: Ms; text: string }[] = [
  { leftMs: 20 * SECOND, atLeastMs: 50 * SECOND, text: earTexts.left(20) },
  { leftMs: 10 * SECOND, atLeastMs: 20 * SECOND, text: earTexts.left(10) },
]
const HALFWAY_FROM_MS: Ms = 30 * SECOND
/** Two things said stand at least so far apart; the later one is left out. */
const APART_MS: Ms = 2500

/** @returns in order of time. */
export function earTrack(lane: readonly ShownSegment[]): Said[] {
  const said = lane.flatMap((shown, index) => {
    if (shown.endMs <= shown.startMs) return []
    return shown.segment.kind === 'work' ? inWork(lane, index) : beforeWork(lane, index)
  })
  return said
    .sort((one, other) => one.atMs - other.atMs)
    .filter(({ atMs }, index, all) => atMs - (all[index - 1]?.atMs ?? -Infinity) >= APART_MS)
}

/** In a rest, break or lead-in: what comes next, and where in the session that is. */
function beforeWork(lane: readonly ShownSegment[], index: number): Said[] {
  const shown = lane[index],
    next = lane[index + 1]
  if (!shown || next?.segment.kind !== 'work') return []
  const more = shown.endMs - shown.startMs >= ROOM_FOR_MORE_MS
  const turn = more && shown.segment.kind === 'break' ? earTexts.round(next.segment) : ''
  return [{ atMs: shown.startMs + AFTER_TONE_MS, text: earTexts.next(next.segment, more, turn) }]
}

function inWork(lane: readonly ShownSegment[], index: number): Said[] {
  const shown = lane[index]
  if (!shown) return []
  const { segment, startMs, endMs } = shown
  const said: Said[] = []
  const before = lane[index - 1]?.segment.kind
  if (before === 'work') said.push({ atMs: startMs + AFTER_TONE_MS, text: earTexts.now(segment) })
  if (!endIsKnown(lane, index)) return said
  const lengthMs = endMs - startMs
  const middle = middleOf(startMs, endMs) + AFTER_TONE_MS
  if (segment.side === 'switch') said.push({ atMs: middle, text: earTexts.otherSide(segment.firstSide) })
  else if (segment.reverses) said.push({ atMs: middle, text: earTexts.otherWay })
  else if (lengthMs >= HALFWAY_FROM_MS) said.push({ atMs: middle - AFTER_TONE_MS, text: earTexts.halfway })
  for (const { leftMs, atLeastMs, text } of NUMBERS)
    if (lengthMs >= atLeastMs && said.every(({ atMs }) => Math.abs(endMs - leftMs - atMs) >= APART_MS))
      said.push({ atMs: endMs - leftMs, text })
  return said
}

/** Every line that a session of this plan may say, the first ones first, so that they can be spoken ahead of time. */
export function linesOf(segments: readonly Segment[]): string[] {
  const lines = earTrack(asPlanned(segments)).map(({ text }) => text)
  // What is counted in again leaves no time for more than the name.
  const short = segments.filter(({ kind }) => kind === 'work').map((segment) => earTexts.next(segment, false, ''))
  return [...new Set([...short.slice(0, 1), ...lines, ...short])]
}
