import { sum } from './sum'
import type { Ms, Ppm } from './units'

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

/**
 * An instant of one recording in the time of another.
 * @param at where instant 0 of the other lies in the time of the one, and how much slower its clock runs.
 */
export const inOther = (at: { atMs: Ms; driftPpm: Ppm }, ms: Ms): Ms => (ms - at.atMs) / (1 + at.driftPpm / 1e6)
