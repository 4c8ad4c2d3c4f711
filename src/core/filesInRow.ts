import { sum } from './sum'
import type { Ms } from './units'

/** Files end to end. */
export interface FilesInRow {
  /** Where each file begins in the whole. */
  beginMs: readonly Ms[]
  /** Which file an instant of the whole lies in, counted from 0, and where in it. */
  placeOf: (wholeMs: Ms) => { footage: number; footageMs: Ms }
}

/** @param fileMs lengths of the files, in order. */
export function filesInRow(fileMs: readonly Ms[]): FilesInRow {
  const beginMs = fileMs.map((_, at) => sum(fileMs.slice(0, at)))
  return {
    beginMs,
    placeOf: (wholeMs) => {
      const footage = Math.max(
        0,
        beginMs.findLastIndex((from) => from <= wholeMs),
      )
      return { footage, footageMs: wholeMs - (beginMs[footage] ?? 0) }
    },
  }
}
