// Sound family one: pip, go, rest and switch, made sample by sample so that preview and render are the same.
import type { Voice } from '../cue/cues'
import type { Hertz, Samples } from '../units'

interface Partial {
  hz: Hertz
  level: number
}
interface Note {
  atMs: number
  lengthMs: number
  partials: readonly Partial[]
}

const wood = (hz: Hertz): readonly Partial[] => [
  { hz, level: 1 },
  { hz: hz * 2.76, level: 0.22 },
]
const bell = (hz: Hertz): readonly Partial[] => [
  { hz, level: 1 },
  { hz: hz * 2, level: 0.35 },
  { hz: hz * 3, level: 0.12 },
]

/**
 * Pitches are a fifth and an octave apart, so that the three can be told by ear: pip low and dry, go high, rest
 * falling.
 */
const NOTES: Record<Voice, readonly Note[]> = {
  pip: [{ atMs: 0, lengthMs: 90, partials: wood(660) }],
  go: [{ atMs: 0, lengthMs: 420, partials: bell(990) }],
  rest: [
    { atMs: 0, lengthMs: 200, partials: bell(660) },
    { atMs: 150, lengthMs: 380, partials: bell(440) },
  ],
  switch: [
    { atMs: 0, lengthMs: 110, partials: wood(880) },
    { atMs: 160, lengthMs: 160, partials: wood(880) },
  ],
}

const PEAK = 0.5
const ATTACK_MS = 2

/** One voice as mono samples in -1..1. The onset is the first sample. */
export function soundOf(voice: Voice, sampleRate: Hertz): Float32Array {
  const notes = NOTES[voice]
  const lengthMs = Math.max(...notes.map((note) => note.atMs + note.lengthMs))
  const out = new Float32Array(Math.round((lengthMs / 1000) * sampleRate))
  for (const note of notes) addNote(out, note, sampleRate)
  return out
}

function addNote(out: Float32Array, note: Note, sampleRate: Hertz): void {
  const from: Samples = Math.round((note.atMs / 1000) * sampleRate)
  const length: Samples = Math.round((note.lengthMs / 1000) * sampleRate)
  const total = note.partials.reduce((sum, partial) => sum + partial.level, 0)
  for (let index = 0; index < length && from + index < out.length; index++) {
    const ms = (index / sampleRate) * 1000
    const swell = Math.min(1, ms / ATTACK_MS)
    const decay = Math.exp((-4.6 * ms) / note.lengthMs) * Math.min(1, (note.lengthMs - ms) / 8)
    let value = 0
    for (const { hz, level } of note.partials) value += level * Math.sin((2 * Math.PI * hz * index) / sampleRate)
    out[from + index] = (out[from + index] ?? 0) + (PEAK * swell * decay * value) / total
  }
}
