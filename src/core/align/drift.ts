// How a session ran against its plan, segment by segment: between ties only, as what is reckoned from the plan says
// nothing of it.
import type { Kind, Segment } from '../score/segment'
import { KINDS } from '../score/segment'
import { sum } from '../sum'
import type { Ms } from '../units'
import { boundariesOf, tieKey } from './boundaries'
import { isSure, type Stitch } from './ties'

export interface DriftRow {
  segment: Segment
  /** Null where the plan has no length for it. */
  plannedMs: Ms | null
  lastedMs: Ms
  /** How much longer than planned; null where nothing was. */
  offMs: Ms | null
  /** The sum of all differences up to here. */
  runningMs: Ms
  /** Both its ends are sure. */
  isSure: boolean
}

export interface DriftSum {
  kind: Kind
  segments: number
  plannedMs: Ms
  lastedMs: Ms
}

export interface Drift {
  rows: DriftRow[]
  /** Of what was planned with a length, by kind; kinds that are not there are left out. */
  sums: DriftSum[]
}

/** @param stitches of one footage, in any order. */
export function driftOf(segments: readonly Segment[], stitches: readonly Stitch[]): Drift {
  const tied = new Map(stitches.map((one) => [tieKey(one), one]))
  const ties = boundariesOf(segments).map((boundary) => tied.get(tieKey(boundary)))
  let runningMs = 0
  const rows = segments.flatMap((segment, at): DriftRow[] => {
    const from = ties[at],
      to = ties[at + 1]
    if (!from || !to) return []
    const lastedMs = to.footageMs - from.footageMs
    const plannedMs = segment.pace === 'fixed' ? segment.durationMs : null
    const offMs = plannedMs === null ? null : lastedMs - plannedMs
    runningMs += offMs ?? 0
    return [{ segment, plannedMs, lastedMs, offMs, runningMs, isSure: isSure(from) && isSure(to) }]
  })
  const sums = KINDS.map((kind): DriftSum => {
    const of = rows.filter((row) => row.segment.kind === kind && row.plannedMs !== null)
    return {
      ...{ kind, segments: of.length },
      plannedMs: sum(of.map((row) => row.plannedMs ?? 0)),
      lastedMs: sum(of.map((row) => row.lastedMs)),
    }
  })
  return { rows, sums: sums.filter((one) => one.segments > 0) }
}
