// Several files of one session, in the order in which they were filmed, as one recording. What was not filmed between
// two of them is a stretch that seems too short.
import type { Evidence } from '../evidence'
import { sum } from '../sum'
import type { Ms } from '../units'

export interface ReelFile {
  /** In order of time. */
  evidence: readonly Evidence[]
  footageMs: Ms
}

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

export interface Reel extends ReelFile, Pick<FilesInRow, 'placeOf'> {}

export function joinedReel(files: readonly ReelFile[]): Reel {
  const fileMs = files.map(({ footageMs }) => footageMs)
  const { beginMs, placeOf } = filesInRow(fileMs)
  return {
    footageMs: sum(fileMs),
    evidence: files.flatMap(({ evidence, footageMs }, at) =>
      evidence
        .filter(({ atMs }) => atMs < footageMs || at === files.length - 1)
        .map((one) => ({ ...one, atMs: one.atMs + (beginMs[at] ?? 0) })),
    ),
    placeOf,
  }
}
