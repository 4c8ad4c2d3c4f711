// Where somebody speaks and where music plays, out of how probable each is from step to step; elsewhere is neither.
import type { EvidenceOf } from '../evidence'
import type { Ms, Share } from '../units'

/** What is told of each step, in this order. */
export const SOUNDING = ['speech', 'music'] as const
export type Sounding = (typeof SOUNDING)[number]
export type SoundingSpan = EvidenceOf<Sounding>

interface Manner {
  /** Shorter gaps are bridged, and what is shorter than `leastMs` is nothing. */
  gapMs: Ms
  leastMs: Ms
}
const MANNERS: Record<Sounding, Manner> = {
  speech: { gapMs: 320, leastMs: 160 },
  music: { gapMs: 2000, leastMs: 2000 },
}
/** It begins where it is likelier than not, and goes on until it hardly is. */
const BEGINS: Share = 0.5
const GOES_ON: Share = 0.3
/** Standard deviation of an edge. */
const SPREAD_MS: Ms = 80

/** @param chances of speech and of music, two numbers a step. @returns in order of time, kind by kind. */
export function soundingIn(chances: Float32Array, stepMs: Ms): SoundingSpan[] {
  return SOUNDING.flatMap((kind, index) => {
    const { gapMs, leastMs } = MANNERS[kind]
    const spans: SoundingSpan[] = []
    for (const { from, to } of bridged(risen(chances, index), gapMs / stepMs)) {
      const durationMs = (to - from) * stepMs
      if (durationMs < leastMs) continue
      let sum = 0
      for (let step = from; step < to; step++) sum += chances[step * SOUNDING.length + index] ?? 0
      const strength = Math.min(1, sum / (to - from))
      spans.push({ kind, atMs: from * stepMs, spreadMs: SPREAD_MS, strength, durationMs })
    }
    return spans
  })
}

/** Steps, the last one not among them. */
interface Steps {
  from: number
  to: number
}

function risen(chances: Float32Array, index: number): Steps[] {
  const found: Steps[] = []
  let on = false
  const count = chances.length / SOUNDING.length
  for (let step = 0; step < count; step++) {
    const chance = chances[step * SOUNDING.length + index] ?? 0
    const last = found.at(-1)
    if (on && chance >= GOES_ON && last) last.to = step + 1
    else if (!on && chance >= BEGINS) found.push({ from: step, to: step + 1 })
    on = on ? chance >= GOES_ON : chance >= BEGINS
  }
  return found
}

function bridged(all: readonly Steps[], gap: number): Steps[] {
  const kept: Steps[] = []
  for (const { from, to } of all) {
    const last = kept.at(-1)
    if (last && from - last.to <= gap) last.to = to
    else kept.push({ from, to })
  }
  return kept
}
