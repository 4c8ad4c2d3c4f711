// Several files of one session, in the order in which they were filmed, as one recording. What was not filmed between
// two of them is a stretch that seems too short.
import type { Evidence } from '../evidence'
import { filesInRow, inOther, type FilesInRow } from '../filesInRow'
import { sum } from '../sum'
import type { Ms, Ppm } from '../units'
import type { Stitch } from './ties'

export interface ReelFile {
  /** In order of time. */
  evidence: readonly Evidence[]
  footageMs: Ms
}

export interface Reel extends ReelFile, Pick<FilesInRow, 'placeOf'> {
  evidence: Evidence[]
  /** Where the second file begins, and every one after it. */
  bordersMs: readonly Ms[]
}

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
    bordersMs: beginMs.slice(1),
    placeOf,
  }
}

/** Ties of single files as ties of the whole. Other places are those within the same file. */
export function tiesOfReel(files: readonly (readonly Stitch[])[], { beginMs }: FilesInRow): Stitch[] {
  return files.flatMap((stitches, at) => stitches.map((tie) => movedBy(tie, beginMs[at] ?? 0)))
}

/** The twin of `tiesOfReel`. @param fileMs lengths of the files, in order. */
export function tiesOfFiles(stitches: readonly Stitch[], fileMs: readonly Ms[]): Stitch[][] {
  const { beginMs, placeOf } = filesInRow(fileMs)
  return fileMs.map((lengthMs, at) =>
    stitches
      .filter(({ footageMs }) => placeOf(footageMs).footage === at)
      .map((tie) => {
        const within = movedBy(tie, -(beginMs[at] ?? 0))
        const alternatives = within.alternatives?.filter(({ footageMs }) => footageMs >= 0 && footageMs < lengthMs)
        return { ...within, ...(alternatives ? { alternatives } : {}) }
      }),
  )
}

const movedBy = (tie: Stitch, byMs: Ms): Stitch => ({
  ...tie,
  footageMs: tie.footageMs + byMs,
  ...(tie.alternatives
    ? { alternatives: tie.alternatives.map((other) => ({ ...other, footageMs: other.footageMs + byMs })) }
    : {}),
})

/**
 * Ties of a recording as ties of another that has the same sound.
 * @param at where instant 0 of the other lies in the time of the one, and how much slower its clock runs.
 * @param lengthMs of the other; what lies outside it is left out.
 */
export function movedInto(ties: readonly Stitch[], at: { atMs: Ms; driftPpm: Ppm }, lengthMs: Ms): Stitch[] {
  return ties.flatMap(({ alternatives: _, ...tie }) => {
    const footageMs = Math.round(inOther(at, tie.footageMs))
    return footageMs >= 0 && footageMs <= lengthMs ? [{ ...tie, footageMs }] : []
  })
}
