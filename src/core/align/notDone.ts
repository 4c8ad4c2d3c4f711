// Segments that somebody said were not done: nothing is looked for of them, and they last nothing where the next begins
// that was done.
import type { Segment } from '../score/segment'
import type { Ms } from '../units'
import { placeBoundaries } from './place'
import { handStitch, isSure, wasNotDone, type Stitch, type Tie } from './ties'

/** The segments without those that were not done; the same list where all were. */
export function doneOf(segments: readonly Segment[], hands: readonly Tie[]): readonly Segment[] {
  const gone = new Set(hands.filter(wasNotDone).map(({ segmentId }) => segmentId))
  return gone.size ? segments.filter(({ id }) => !gone.has(id)) : segments
}

/** A segment that was not done, as a tie; `withNotDonePlaced` brings it to its place. */
export const notDoneStitch = (segmentId: string): Stitch => ({
  ...handStitch({ segmentId, edge: 'start', footageMs: 0 }),
  done: false,
})

/** Ties with those of segments that were not done brought to where the next begins, or is reckoned to. */
export function withNotDonePlaced(segments: readonly Segment[], ties: readonly Stitch[], footageMs: Ms): Stitch[] {
  if (!ties.some(wasNotDone)) return [...ties]
  const { segments: done, ties: held } = asDone(segments, ties)
  const places = placeBoundaries(done, held, footageMs)
  const placeOf = new Map(done.map(({ id }, at) => [id, places[at]?.footageMs ?? 0]))
  // Behind the last that was done lies the end.
  let nextMs = places.at(-1)?.footageMs ?? 0
  const notDoneAt = new Map<string, Ms>()
  for (const { id } of [...segments].reverse()) {
    const placeMs = placeOf.get(id)
    if (placeMs === undefined) notDoneAt.set(id, nextMs)
    else nextMs = placeMs
  }
  return ties.map((tie) =>
    wasNotDone(tie) ? { ...tie, footageMs: Math.round(notDoneAt.get(tie.segmentId) ?? tie.footageMs) } : tie,
  )
}

/** The plan and its ties as if what was not done had never been planned. */
export function asDone<T extends Tie>(
  segments: readonly Segment[],
  ties: readonly T[],
): { segments: readonly Segment[]; ties: readonly T[] } {
  const done = doneOf(segments, ties)
  if (done === segments) return { segments, ties }
  let startMs = done[0]?.startMs ?? 0
  const endToEnd = done.map((segment) => {
    const placed = { ...segment, startMs }
    startMs += segment.durationMs
    return placed
  })
  return { segments: endToEnd, ties: ties.filter((tie) => !wasNotDone(tie)) }
}

/** What was not done where a segment was not: work and the rest after it, as far as neither is surely tied. */
export function stationAt(segments: readonly Segment[], ties: readonly Stitch[], segmentId: string): string[] {
  const sure = surelyTied(ties)
  const at = segments.findIndex(({ id }) => id === segmentId)
  const from = segments[at]?.kind === 'rest' && segments[at - 1]?.kind === 'work' ? at - 1 : at
  const until = segments[from]?.kind === 'work' && segments[from + 1]?.kind === 'rest' ? from + 2 : from + 1
  return segments
    .slice(Math.max(0, from), until)
    .map(({ id }) => id)
    .filter((id) => id === segmentId || !sure.has(id))
}

/** What was not done where nothing of a round was: all of it that is not surely tied. */
export function restOfRound(segments: readonly Segment[], ties: readonly Stitch[], segmentId: string): string[] {
  const sure = surelyTied(ties)
  const chosen = segments.find(({ id }) => id === segmentId)
  return segments
    .filter(({ section, round }) => section === chosen?.section && round === chosen?.round)
    .map(({ id }) => id)
    .filter((id) => id === segmentId || !sure.has(id))
}

const surelyTied = (ties: readonly Stitch[]): ReadonlySet<string> =>
  new Set(ties.filter((tie) => tie.edge === 'start' && isSure(tie)).map(({ segmentId }) => segmentId))
