// What was heard of the footage, where the cut shows it: in output time.
import type { Stretch } from '../cue/schedule'
import { byTime, ofKind, type Evidence } from '../evidence'
import { timerBeeps } from '../hear/timerBeeps'
import { firstFrom } from '../lastBegun'
import { PEAKS_A_STEP, STEP_MS, type Steps } from '../sound/loudness'
import type { Ms, Share } from '../units'
import { outMsIn, sourceMsIn, spanAt, type Cut } from './cut'

/** Speech that is less likely is not kept clear of. */
const LEAST_STRENGTH: Share = 0.5

/** @param cut of a reel that lies in one time, source 0. @param heard in that time. */
export function heardInOutput(cut: Cut, heard: readonly Evidence[]): { coach: Stretch[]; timer: Ms[] } {
  const speech = ofKind(heard, 'speech')
    .filter(({ strength }) => strength >= LEAST_STRENGTH)
    .sort(byTime)
  const beeps = timerBeeps(ofKind(heard, 'beep'))
    .filter(({ strength }) => strength >= LEAST_STRENGTH)
    .sort(byTime)
  const coach: Stretch[] = [],
    timer: Ms[] = []
  const [said, beeped] = [speech, beeps].map((list) => list.map(({ atMs }) => atMs))
  const longestMs = speech.reduce((longest, { durationMs }) => Math.max(longest, durationMs), 0)
  for (const span of cut.spans) {
    // A picture that stands, and a card, are silent.
    if (span.source !== 0 || span.rate === 0) continue
    for (let at = firstFrom(said ?? [], span.fromMs - longestMs); at < speech.length; at++) {
      const { atMs, durationMs } = speech[at] ?? { atMs: Infinity, durationMs: 0 }
      if (atMs >= span.toMs) break
      const fromMs = Math.max(atMs, span.fromMs),
        untilMs = Math.min(atMs + durationMs, span.toMs)
      if (untilMs > fromMs) coach.push({ fromMs: outMsIn(span, fromMs), untilMs: outMsIn(span, untilMs) })
    }
    for (let at = firstFrom(beeped ?? [], span.fromMs); at < beeps.length; at++) {
      const { atMs } = beeps[at] ?? { atMs: Infinity }
      if (atMs >= span.toMs) break
      timer.push(outMsIn(span, atMs))
    }
  }
  return {
    coach: coach.sort((one, other) => one.fromMs - other.fromMs),
    timer: timer.sort((one, other) => one - other),
  }
}

/**
 * How loud the footage is through the cut, in steps of output time.
 * @param files each file in steps of its own time; null where it has no sound.
 */
export function filmSteps(cut: Cut, files: readonly (Steps | null)[]): Steps | null {
  if (files.every((one) => one === null)) return null
  const length = Math.ceil(cut.outMs / STEP_MS)
  const through = (part: keyof Steps, stepMs: Ms): Float32Array =>
    Float32Array.from({ length: Math.ceil(length * (STEP_MS / stepMs)) }, (_, at) => {
      const outMs = (at + 0.5) * stepMs
      const span = cut.spans[spanAt(cut, outMs)]
      if (!span || typeof span.source !== 'number' || span.rate === 0) return 0
      return files[span.source]?.[part][Math.floor(sourceMsIn(span, outMs) / stepMs)] ?? 0
    })
  return { energy: through('energy', STEP_MS), peak: through('peak', STEP_MS / PEAKS_A_STEP) }
}
