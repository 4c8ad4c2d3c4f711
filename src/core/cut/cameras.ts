// Second cameras: files that show the same as the reel at the same time. They lie behind the reel, end to end, as if it
// went on; a stretch that is shown from one of them is the same stretch, elsewhere.
import { inOther } from '../filesInRow'
import type { Ms, Ppm } from '../units'
import type { Cut, Span } from './cut'

export interface Camera {
  /** Of its footage. */
  id: string
  /** Where its file begins and ends behind the reel. */
  fromMs: Ms
  toMs: Ms
  /** Where its instant 0 lies in the reel, and how much slower its clock runs. */
  atMs: Ms
  driftPpm: Ppm
}

/** @returns the stretch as this camera has it; null where it does not have all of it. */
export function seenBy(camera: Camera, range: { fromMs: Ms; toMs: Ms }): typeof range | null {
  const { fromMs, toMs } = camera
  const from = Math.round(fromMs + inOther(camera, range.fromMs))
  const seen = { fromMs: from, toMs: from + range.toMs - range.fromMs }
  return seen.fromMs >= fromMs && seen.toMs <= toMs ? seen : null
}

/**
 * Shows segments from other cameras. What a camera does not have is shown as it was.
 * @param chosen ids of cameras by the segments that are shown from them.
 */
export function shownFrom(cut: Cut, cameras: readonly Camera[], chosen: Readonly<Record<string, string>>): Cut {
  const spans = cut.spans.map((span): Span => {
    const camera = cameras.find(({ id }) => span.segmentId !== null && chosen[span.segmentId] === id)
    if (!camera || span.source === 'card') return span
    const seen = seenBy(camera, span)
    return seen ? { ...span, ...seen } : span
  })
  return { ...cut, spans }
}
