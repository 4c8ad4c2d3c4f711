// The cut: spans of source time laid end to end in output time. From here on there is output time only: cues, overlay,
// captions, chapters and render all get their times through a cut, in both directions.
import { firstFrom, lastBegun } from '../lastBegun'
import type { Segment } from '../score/segment'
import type { Ms } from '../units'
import type { LaidSegment } from './lane'

/** Why a span stands where it does; the words are in `words/en/cuts`. */
export type Why = 'filmed' | 'shortened' | 'slowed' | 'reused' | 'held' | 'card'

/** `[fromMs, toMs)` of a source, shown for `lengthMs` from `outMs` on. */
export interface Span {
  /** Index of the file in the reel, a drawn card, or a held picture. */
  source: number | 'card' | 'still'
  fromMs: Ms
  toMs: Ms
  outMs: Ms
  /** In output time; above 0. */
  lengthMs: Ms
  /** Source time that passes in a unit of output time: 0 for a held picture. */
  rate: number
  mirrored: boolean
  /** The segment that it shows; null for what lies outside the plan. */
  segmentId: string | null
  why: Why
  /** Index of the file that a held picture is taken from, at `fromMs`; null for all else. */
  stillOf: number | null
}

export interface Cut {
  /** Length of the output. */
  outMs: Ms
  /** In order, without gaps or overlaps in output time. */
  spans: readonly Span[]
}

/** A segment where viewers see it. `[startMs, endMs)` in output time. */
export interface ShownSegment {
  segment: Segment
  startMs: Ms
  endMs: Ms
  /** False where the start, or the end, is reckoned and not tied. */
  startTied: boolean
  endTied: boolean
}

/** Where in its source a span, or a run of spans, is at an instant of the output. */
export const sourceMsIn = ({ fromMs, outMs, rate }: Pick<Span, 'fromMs' | 'outMs' | 'rate'>, atMs: Ms): Ms =>
  fromMs + (atMs - outMs) * rate

/** Where in the output a span shows an instant of its source; the source has to move. */
export const outMsIn = ({ fromMs, outMs, rate }: Pick<Span, 'fromMs' | 'outMs' | 'rate'>, sourceMs: Ms): Ms =>
  outMs + (sourceMs - fromMs) / rate

/**
 * Where an instant of a source is shown. An instant between two spans belongs to the later one; the end of a source's
 * last span is shown where that span ends.
 * @returns null where it was cut out.
 */
export function toOutput(cut: Cut, source: Span['source'], ms: Ms): Ms | null {
  let end: Ms | null = null
  for (const span of cut.spans) {
    if (span.source !== source) continue
    if (ms >= span.fromMs && ms < span.toMs) return outMsIn(span, ms)
    if (ms === span.toMs) end = span.outMs + span.lengthMs
  }
  return end
}

/**
 * `toOutput` of many instants in one walk over the spans.
 * @param instants of the source, rising.
 */
export function toOutputs(cut: Cut, source: Span['source'], instants: readonly Ms[]): (Ms | null)[] {
  const found = instants.map((): Ms | null => null)
  const ends = found.slice()
  for (const span of cut.spans) {
    if (span.source !== source) continue
    for (let at = firstFrom(instants, span.fromMs); at < instants.length; at++) {
      const ms = instants[at] ?? Infinity
      if (ms > span.toMs) break
      if (ms < span.toMs) found[at] ??= outMsIn(span, ms)
      else ends[at] = span.outMs + span.lengthMs
    }
  }
  return found.map((outMs, at) => outMs ?? ends[at] ?? null)
}

/** Number of the span that is shown at an instant of the output: the first before it, the last after it. */
export const spanAt = (cut: Cut, outMs: Ms): number =>
  Math.max(
    0,
    lastBegun(cut.spans, (span) => span.outMs, outMs),
  )

/** What is shown at an instant of the output; null outside it. */
export function toSource(cut: Cut, outMs: Ms): { source: Span['source']; ms: Ms } | null {
  const span = cut.spans[spanAt(cut, outMs)]
  if (!span || outMs < span.outMs || outMs > span.outMs + span.lengthMs) return null
  return { source: span.source, ms: sourceMsIn(span, outMs) }
}

/** The segments in output time. One that was cut out lasts nothing, where it would have been. */
export function shownIn(cut: Cut, laid: readonly LaidSegment[]): ShownSegment[] {
  const places = new Map<string, { startMs: Ms; endMs: Ms }>()
  for (const { segmentId, outMs, lengthMs } of cut.spans) {
    if (segmentId === null) continue
    const startMs = places.get(segmentId)?.startMs ?? outMs
    places.set(segmentId, { startMs, endMs: outMs + lengthMs })
  }
  let atMs = 0
  return laid.map(({ segment, fromTied, toTied }) => {
    const place = places.get(segment.id) ?? { startMs: atMs, endMs: atMs }
    atMs = place.endMs
    return { segment, ...place, startTied: fromTied, endTied: toTied }
  })
}

/**
 * The plan itself as output time, for the companion track and for exports without footage. Where work at its own pace
 * ends is only guessed, and so is the start of what follows.
 */
export function asPlanned(segments: readonly Segment[]): ShownSegment[] {
  return segments.map((segment, index) => ({
    segment,
    startMs: segment.startMs,
    endMs: segment.startMs + segment.durationMs,
    startTied: !endsByGuess(segments[index - 1]),
    endTied: !endsByGuess(segment),
  }))
}

const endsByGuess = (segment: Segment | undefined): boolean => segment?.pace === 'own' && segment.slot === null

/**
 * Whether viewers can be told when a segment ends: not within a slot, whose end alone is by the clock, nor at a guess.
 */
export function endIsKnown(lane: readonly ShownSegment[], index: number): boolean {
  const laid = lane[index]
  if (!laid) return true
  if (laid.segment.slot) return slotEnd(lane, index) === laid.endMs
  return laid.segment.pace !== 'own' || laid.endTied
}

/** Where the slot of a segment ends in output time; its own end where it is in none. */
export function slotEnd(lane: readonly ShownSegment[], index: number): Ms {
  let at = index
  const within = (next: ShownSegment | undefined): boolean => (next?.segment.slot?.beforeMs ?? 0) > 0
  while (lane[at]?.segment.slot && within(lane[at + 1])) at++
  return lane[at]?.endMs ?? 0
}
