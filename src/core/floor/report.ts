// What really happened on the floor, against what was planned: each take, and each segment that was never done.
import type { Segment } from '../score/segment'
import { SECOND, type Ms } from '../units'
import type { FloorEvent, Mark } from './events'
import { performanceOf, type FloorLog } from './log'
import type { EndedBy } from './machine'

export interface ReportRow {
  key: string
  segment: Segment
  /** Which time it was done; 0 where it never was. */
  take: number
  /** With what it was held; null where it was not done. */
  reallyMs: Ms | null
  heldMs: Ms
  endedBy: EndedBy | null
  mark: Mark | null
  notes: string[]
  /** This take is the one that counts. */
  stands: boolean
}

export interface Report {
  /** In order of time; what was never done stands where it would have been. */
  rows: ReportRow[]
  plannedMs: Ms
  reallyMs: Ms
  /** What ran furthest over its plan, where that is worth a word. */
  longest: ReportRow | null
}

const WORTH_A_WORD_MS: Ms = 2 * SECOND

export function reportOf({ score, events }: Pick<FloorLog, 'score' | 'events'>): Report {
  const endMs = events.findLast(({ kind }) => kind === 'end')?.atMs
  const { segments, takes, stands, lengthMs } = performanceOf({ score, events }, endMs)
  const standing = new Set(stands.map(({ segmentId, fromMs }) => `${segmentId} ${fromMs}`))
  const places = new Map(segments.map((segment, place) => [segment.id, place]))
  const notes = notesOf(events)
  const done = takes.flatMap((take): ReportRow[] => {
    const segment = segments[places.get(take.segmentId) ?? -1]
    if (!segment) return []
    const { heldMs, endedBy, mark } = take
    return [
      {
        ...{ key: `${segment.id} ${take.take}`, segment, take: take.take, reallyMs: take.toMs - take.fromMs, heldMs },
        ...{ endedBy, mark, stands: standing.has(`${segment.id} ${take.fromMs}`) },
        notes: take.take === 1 ? (notes.get(segment.id) ?? []) : [],
      },
    ]
  })
  const rows = withMissing(segments, done)
  const over = (row: ReportRow): Ms =>
    row.reallyMs === null || row.segment.pace === 'open' || row.segment.pace === 'own'
      ? 0
      : row.reallyMs - row.segment.durationMs
  const longest = done.reduce<ReportRow | null>(
    (most, row) => (over(row) > (most ? over(most) : WORTH_A_WORD_MS) ? row : most),
    null,
  )
  const last = segments.at(-1)
  return { rows, plannedMs: last ? last.startMs + last.durationMs : 0, reallyMs: lengthMs, longest }
}

function notesOf(events: readonly FloorEvent[]): Map<string, string[]> {
  const notes = new Map<string, string[]>()
  for (const event of events) {
    const text = event.kind === 'note' ? event.text : event.kind === 'result' ? `${event.of}: ${event.value}` : null
    if (text === null || !('segmentId' in event)) continue
    notes.set(event.segmentId, [...(notes.get(event.segmentId) ?? []), text])
  }
  return notes
}

/** Puts segments that were never done behind the last take of what stands before them in the plan. */
function withMissing(segments: readonly Segment[], done: readonly ReportRow[]): ReportRow[] {
  const rows = [...done]
  let before = -1
  for (const segment of segments) {
    const last = rows.findLastIndex((row) => row.segment.id === segment.id)
    if (last >= 0) {
      before = last
      continue
    }
    const missing = { take: 0, reallyMs: null, heldMs: 0, endedBy: null, mark: null, notes: [], stands: false }
    rows.splice(++before, 0, { ...missing, key: segment.id, segment })
  }
  return rows
}
