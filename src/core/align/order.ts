// The order in which files were filmed: by what of the plan they show, else by when they were recorded, else by name.
import type { Segment } from '../score/segment'
import { median } from '../sum'
import type { Ms } from '../units'
import { boundariesOf, tieKey } from './boundaries'
import { isSure, type Stitch } from './ties'

export type OrderedBy = 'contents' | 'recorded' | 'name'

export interface FiledFootage {
  name: string
  /** Planned time that it shows; null where nothing in it is sure. */
  planMs: Ms | null
  /** When the camera began it, milliseconds since the epoch; null where the file does not say. */
  recordedMs: number | null
}

/** @returns the files in order, and what told it: the first that tells it of all of them. */
export function filmedOrder<T extends FiledFootage>(files: readonly T[]): { files: T[]; by: OrderedBy } {
  const tells = (of: (file: T) => number | null): boolean =>
    new Set(files.map(of)).size === files.length && files.every((file) => of(file) !== null)
  const sorted = (of: (file: T) => number | null): T[] => [...files].sort((a, b) => (of(a) ?? 0) - (of(b) ?? 0))
  const planOf = (file: T): number | null => file.planMs
  const recordedOf = (file: T): number | null => file.recordedMs
  if (tells(planOf)) return { files: sorted(planOf), by: 'contents' }
  if (tells(recordedOf)) return { files: sorted(recordedOf), by: 'recorded' }
  return { files: [...files].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true })), by: 'name' }
}

/** The planned time that a file shows, by what in it is sure; null where nothing is. */
export function shownPlanMs(segments: readonly Segment[], found: readonly Stitch[]): Ms | null {
  const planned = new Map(boundariesOf(segments).map((boundary) => [tieKey(boundary), boundary.plannedMs]))
  const sure = found.filter(isSure).flatMap((tie) => planned.get(tieKey(tie)) ?? [])
  return sure.length ? median(sure) : null
}
