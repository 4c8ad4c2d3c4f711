// What was heard of the footage, where the cut shows it: in output time.
import type { Stretch } from '../cue/schedule'
import { ofKind, type Evidence } from '../evidence'
import { timerBeeps } from '../hear/timerBeeps'
import { STEP_MS } from '../sound/loudness'
import type { Ms, Share } from '../units'
import { outMsIn, sourceMsIn, spanAt, type Cut } from './cut'

/** Speech that is less likely is not kept clear of. */
const LEAST_STRENGTH: Share = 0.5

/** @param cut of a reel that lies in one time, source 0. @param heard in that time. */
export function heardInOutput(cut: Cut, heard: readonly Evidence[]): { coach: Stretch[]; timer: Ms[] } {
  const speech = ofKind(heard, 'speech').filter(({ strength }) => strength >= LEAST_STRENGTH)
  const beeps = timerBeeps(ofKind(heard, 'beep')).filter(({ strength }) => strength >= LEAST_STRENGTH)
  const coach: Stretch[] = [],
    timer: Ms[] = []
  for (const span of cut.spans) {
    // A picture that stands, and a card, are silent.
    if (span.source !== 0 || span.rate === 0) continue
    for (const { atMs, durationMs } of speech) {
      const fromMs = Math.max(atMs, span.fromMs),
        untilMs = Math.min(atMs + durationMs, span.toMs)
      if (untilMs > fromMs) coach.push({ fromMs: outMsIn(span, fromMs), untilMs: outMsIn(span, untilMs) })
    }
    for (const { atMs } of beeps) if (atMs >= span.fromMs && atMs < span.toMs) timer.push(outMsIn(span, atMs))
  }
  return {
    coach: coach.sort((one, other) => one.fromMs - other.fromMs),
    timer: timer.sort((one, other) => one - other),
  }
}

/**
 * The loudness of the footage through the cut, as energies in steps of output time.
 * @param files of each file, in steps of its own time; null where it has no sound.
 */
export function filmEnergies(cut: Cut, files: readonly (Float32Array | null)[]): Float32Array | null {
  if (files.every((one) => one === null)) return null
  return Float32Array.from({ length: Math.ceil(cut.outMs / STEP_MS) }, (_, step) => {
    const outMs = (step + 0.5) * STEP_MS
    const span = cut.spans[spanAt(cut, outMs)]
    if (!span || typeof span.source !== 'number' || span.rate === 0) return 0
    return files[span.source]?.[Math.floor(sourceMsIn(span, outMs) / STEP_MS)] ?? 0
  })
}
