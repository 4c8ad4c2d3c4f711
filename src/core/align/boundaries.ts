// Boundaries of a score, the clock fitted through stitches, and where unstitched boundaries are reckoned to be.
import type { Segment } from '../score/segment'
import type { Ms, Ppm } from '../units'

/** An instant where one segment gives way to the next, or the end of the last one. */
export interface Boundary {
  segmentId: string
  row: number
  edge: 'start' | 'end'
  /** In score time. */
  plannedMs: Ms
  /** A stretch of unknown length (talk) lies between the boundary before and this one. */
  afterTalk: boolean
  /** A timer or a coach marks this instant: all but the very start, and the end of closing talk. */
  audible: boolean
}

/** A boundary tied to an instant of footage. */
export interface StitchPoint {
  segmentId: string
  edge: 'start' | 'end'
  footageMs: Ms
}

/** One text for a boundary, wherever boundaries and stitches are looked up by one another. */
export const tieKey = ({ segmentId, edge }: Pick<Boundary, 'segmentId' | 'edge'>): string => `${segmentId} ${edge}`

export function boundariesOf(segments: readonly Segment[]): Boundary[] {
  const starts = segments.map((segment, index): Boundary => ({
    segmentId: segment.id,
    row: segment.row,
    edge: 'start',
    plannedMs: segment.startMs,
    afterTalk: segments[index - 1]?.kind === 'talk',
    audible: segment.kind !== 'talk' || (index > 0 && segments[index - 1]?.kind !== 'talk'),
  }))
  const last = segments.at(-1)
  if (!last) return starts
  return [
    ...starts,
    {
      segmentId: last.id,
      row: last.row,
      edge: 'end',
      plannedMs: last.startMs + last.durationMs,
      afterTalk: last.kind === 'talk',
      audible: last.kind !== 'talk',
    },
  ]
}

export interface ClockFit {
  /** Footage time of score time 0. */
  offsetMs: number
  /** How much faster the footage's clock runs than the score's. */
  driftPpm: Ppm
}

/** Largest drift believed; a steeper slope comes from a wrong stitch, not from a clock. */
const MOST_DRIFT = 0.05

/**
 * Least squares through stitches. Stretches divided by talk (which has no planned length) or by a restarted timer get
 * an offset each, and share one rate. With one stitch the rate is 1; with none the offset is 0.
 * @returns the offset of the first stretch that has a stitch, and the shared drift.
 */
export function fitClock(boundaries: readonly Boundary[], stitches: readonly StitchPoint[]): ClockFit {
  const stretches = stitchedStretches(boundaries, stitches)
  let products = 0,
    squares = 0
  for (const stretch of stretches) {
    const planned = mean(stretch.map((one) => one.plannedMs))
    const found = mean(stretch.map((one) => one.footageMs))
    for (const one of stretch) {
      products += (one.plannedMs - planned) * (one.footageMs - found)
      squares += (one.plannedMs - planned) ** 2
    }
  }
  const slope = squares ? products / squares : 1
  const rate = Math.abs(slope - 1) <= MOST_DRIFT ? slope : 1
  const first = stretches[0]
  const offsetMs = first ? mean(first.map((one) => one.footageMs)) - rate * mean(first.map((one) => one.plannedMs)) : 0
  return { offsetMs, driftPpm: (rate - 1) * 1e6 }
}

interface Tie {
  plannedMs: Ms
  footageMs: Ms
}

function stitchedStretches(boundaries: readonly Boundary[], stitches: readonly StitchPoint[]): Tie[][] {
  const at = new Map(stitches.map((stitch) => [tieKey(stitch), stitch.footageMs]))
  const stretches: Tie[][] = []
  let open: Tie[] = []
  for (const boundary of boundaries) {
    if (boundary.afterTalk) open = []
    const footageMs = at.get(tieKey(boundary))
    if (footageMs === undefined) continue
    const tie = { plannedMs: boundary.plannedMs, footageMs }
    if (open.length && stitches.length > 2 && wasRestarted(open.at(-1), tie)) open = []
    if (!open.length) stretches.push(open)
    open.push(tie)
  }
  return stretches
}

/** More than any clock drifts between two stitches: somebody stopped or restarted the timer. Two stitches alone are taken at their word. */
function wasRestarted(before: Tie | undefined, after: Tie): boolean {
  if (!before) return false
  const plannedMs = after.plannedMs - before.plannedMs
  return Math.abs(after.footageMs - before.footageMs - plannedMs) > Math.max(250, plannedMs * 0.004)
}

const mean = (values: number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length

export interface Place {
  footageMs: Ms
  stitched: boolean
}

/**
 * Footage time of every boundary. Stitched ones stand where they were put; between two stitches the plan is
 * stretched to fit, with any slack given to talk; outside, the fitted clock carries on from the nearest stitch.
 * The result never runs backwards and stays inside the footage.
 */
export function predict(boundaries: readonly Boundary[], stitches: readonly StitchPoint[], footageMs: Ms): Place[] {
  const at = new Map(stitches.map((stitch) => [tieKey(stitch), stitch.footageMs]))
  const rate = 1 + fitClock(boundaries, stitches).driftPpm / 1e6
  const anchors = boundaries.flatMap((boundary, index) => {
    const found = at.get(tieKey(boundary))
    return found === undefined ? [] : [{ index, footageMs: found }]
  })
  const places: Place[] = boundaries.map((boundary) => ({ footageMs: boundary.plannedMs, stitched: false }))
  const first = anchors[0],
    last = anchors.at(-1)
  if (first && last) {
    fill(
      0,
      first.index,
      (boundary) => first.footageMs - rate * ((boundaries[first.index]?.plannedMs ?? 0) - boundary.plannedMs),
    )
    fill(
      last.index + 1,
      boundaries.length,
      (boundary) => last.footageMs + rate * (boundary.plannedMs - (boundaries[last.index]?.plannedMs ?? 0)),
    )
    anchors.forEach((anchor, number) => {
      places[anchor.index] = { footageMs: anchor.footageMs, stitched: true }
      const next = anchors[number + 1]
      if (next) stretchBetween(boundaries, places, anchor, next, rate)
    })
  }
  settle(places, boundaries, footageMs)
  return places

  function fill(from: number, to: number, where: (boundary: Boundary) => number): void {
    for (let index = from; index < to; index++) {
      const boundary = boundaries[index]
      if (boundary) places[index] = { footageMs: where(boundary), stitched: false }
    }
  }
}

interface Anchor {
  index: number
  footageMs: Ms
}

/** Places the boundaries strictly between two stitched ones. */
function stretchBetween(
  boundaries: readonly Boundary[],
  places: Place[],
  from: Anchor,
  to: Anchor,
  rate: number,
): void {
  const planned = (index: number): Ms => boundaries[index]?.plannedMs ?? 0
  const talkAt = boundaries.findIndex(
    (boundary, index) => index > from.index && index <= to.index && boundary.afterTalk,
  )
  const scale = (to.footageMs - from.footageMs) / Math.max(1, planned(to.index) - planned(from.index))
  for (let index = from.index + 1; index < to.index; index++) {
    const forwards = from.footageMs + (talkAt < 0 ? scale : rate) * (planned(index) - planned(from.index))
    const backwards = to.footageMs - rate * (planned(to.index) - planned(index))
    places[index] = { footageMs: talkAt >= 0 && index >= talkAt ? backwards : forwards, stitched: false }
  }
}

/** Rounds to whole milliseconds, keeps the order of time, and leaves the very start and end to open talk. */
function settle(places: Place[], boundaries: readonly Boundary[], footageMs: Ms): void {
  const opening = boundaries[1]?.afterTalk ? places[0] : undefined
  if (opening && !opening.stitched) opening.footageMs = 0
  const closing = boundaries.at(-1)?.afterTalk ? places.at(-1) : undefined
  if (closing && !closing.stitched) closing.footageMs = footageMs
  let earliest = 0
  for (const place of places) {
    place.footageMs = Math.min(footageMs, Math.max(earliest, Math.round(place.footageMs)))
    earliest = place.footageMs
  }
}
