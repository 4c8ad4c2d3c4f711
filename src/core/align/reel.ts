// Several files of one session, in the order in which they were filmed, as one recording. What was not filmed between
// two of them is a stretch that seems too short.
import type { Evidence } from '../evidence'
import type { Ms } from '../units'

export interface ReelFile {
  /** In order of time. */
  evidence: readonly Evidence[]
  footageMs: Ms
}

export interface Reel extends ReelFile {
  /** Which file an instant of the whole lies in, counted from 0, and where in it. */
  placeOf: (wholeMs: Ms) => { footage: number; footageMs: Ms }
}

export function joinedReel(files: readonly ReelFile[]): Reel {
  const beginMs = files.map((_, at) => files.slice(0, at).reduce((sum, { footageMs }) => sum + footageMs, 0))
  return {
    footageMs: files.reduce((sum, { footageMs }) => sum + footageMs, 0),
    evidence: files.flatMap(({ evidence, footageMs }, at) =>
      evidence
        .filter(({ atMs }) => atMs < footageMs || at === files.length - 1)
        .map((one) => ({ ...one, atMs: one.atMs + (beginMs[at] ?? 0) })),
    ),
    placeOf: (wholeMs) => {
      const footage = Math.max(
        0,
        beginMs.findLastIndex((from) => from <= wholeMs),
      )
      return { footage, footageMs: wholeMs - (beginMs[footage] ?? 0) }
    },
  }
}
