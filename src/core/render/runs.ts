// A cut as it is decoded: runs of one source, each as long as it can be, and where their frames and samples fall.
import { sourceMsIn, type Cut, type Span } from '../cut/cut'
import type { OverlayChange } from '../look/overlay'
import { frameMsOf, type Hertz, type Ms, type Rate, type Samples } from '../units'

/** Spans that follow one another in their source as in the output. */
export type Run = Pick<Span, 'source' | 'stillOf' | 'fromMs' | 'outMs' | 'lengthMs' | 'rate' | 'mirrored'>

export function runsOf({ spans }: Cut): Run[] {
  const runs: Run[] = []
  for (const { source, stillOf, fromMs, outMs, lengthMs, rate, mirrored } of spans) {
    const last = runs.at(-1)
    const goesOn =
      last?.source === source &&
      last.rate === rate &&
      last.mirrored === mirrored &&
      (source === 'card' || (source !== 'still' && last.fromMs + last.lengthMs * rate === fromMs))
    if (goesOn) last.lengthMs += lengthMs
    else runs.push({ source, stillOf, fromMs, outMs, lengthMs, rate, mirrored })
  }
  return runs
}

/** Pictures of a run on the output's grid. */
export interface Piece {
  run: Run
  /** Number of its first picture in the output, from 0 on. */
  first: number
  /** How many; 1 or more. */
  frames: number
  /** A fraction of milliseconds. */
  lengthMs: Ms
  /** The source's instant at its first picture. */
  fromMs: Ms
}

/** Where a piece is in its source. */
export const sourceOf = ({ fromMs, lengthMs, run }: Piece): Pick<Span, 'fromMs' | 'lengthMs' | 'rate'> => ({
  ...{ fromMs, lengthMs, rate: run.rate },
})

/** @returns pieces whose pictures lie end to end: number n of the output is shown from n / rate on. */
export function piecesOf(cut: Cut, rate: Rate): Piece[] {
  const frameMs = frameMsOf(rate)
  const frameAt = (ms: Ms): number => Math.round(ms / frameMs)
  return runsOf(cut).flatMap((run): Piece[] => {
    const first = frameAt(run.outMs),
      frames = frameAt(run.outMs + run.lengthMs) - first
    const fromMs = sourceMsIn(run, first * frameMs)
    return frames > 0 ? [{ run, first, frames, lengthMs: frames * frameMs, fromMs }] : []
  })
}

/** Number of the first picture that is shown at an instant or after it; sums of fractions are off by less than that. */
export const firstFrameAt = (ms: Ms, frameMs: Ms): number => Math.ceil(ms / frameMs - 1e-6)

/**
 * Changes of the overlay within a piece, from its own 0 on. Each falls between two pictures, so that no rounding of
 * times shows it one too early or too late: first on the picture that is shown from its instant on, or just after.
 */
export function changesWithin(
  changes: readonly OverlayChange[],
  { first, frames }: Piece,
  rate: Rate,
): OverlayChange[] {
  const frameMs = frameMsOf(rate)
  const placed = changes.map(({ fromMs, state }) => ({ frame: firstFrameAt(fromMs, frameMs) - first, state }))
  const begin = placed.findLastIndex(({ frame }) => frame <= 0)
  return placed
    .slice(Math.max(0, begin))
    .filter(({ frame }) => frame < frames)
    .map(({ frame, state }) => ({ fromMs: Math.max(0, (frame - 0.5) * frameMs), state }))
}

/** Sound of a run with what overlaps its neighbours. */
export interface SoundRun {
  run: Run
  /** The source's instant at its first sample. */
  fromMs: Ms
  samples: Samples
  /** Its first samples are mixed with the last of the run before, its last with the first of the next. */
  fadeIn: Samples
  fadeOut: Samples
}

/** Half of a crossfade. */
const HALF_FADE_MS: Ms = 10

export function soundRunsOf(cut: Cut, rate: Hertz): SoundRun[] {
  const runs = runsOf(cut)
  const sampleAt = (ms: Ms): Samples => Math.round((ms * rate) / 1000)
  const lengths = runs.map(({ outMs, lengthMs }) => sampleAt(outMs + lengthMs) - sampleAt(outMs))
  const halves = lengths.map((length, at) =>
    at === 0 ? 0 : Math.floor(Math.min(sampleAt(HALF_FADE_MS), length / 2, (lengths[at - 1] ?? 0) / 2)),
  )
  return runs.map((run, at) => {
    const before = halves[at] ?? 0,
      after = halves[at + 1] ?? 0
    return {
      run,
      fromMs: run.fromMs - (before * 1000 * run.rate) / rate,
      samples: (lengths[at] ?? 0) + before + after,
      fadeIn: before * 2,
      fadeOut: after * 2,
    }
  })
}
