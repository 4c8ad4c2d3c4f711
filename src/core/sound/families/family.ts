// How a family of sounds is written down, and made: sample by sample, so that preview and render are the same.
import type { Sound } from '../../cue/cue'
import type { Hertz, Ms, Samples } from '../../units'

export interface Partial {
  /** A multiple of the note's pitch. */
  times: number
  level: number
  /** How much sooner than the note it dies away: 1 with it, 2 in half of its time. Default 1. */
  fades?: number
}
export interface Note {
  atMs: Ms
  lengthMs: Ms
  hz: Hertz
  /** The pitch that it glides to; default: none. */
  toHz?: Hertz
}
/** What the notes of a family are struck, blown or plucked on. */
export interface Timbre {
  partials: readonly Partial[]
  attackMs: Ms
  /** How many times it falls by a factor e until its end: 4.6 is to a hundredth, 0 holds it. */
  decay: number
  /** It ends within this time. */
  releaseMs: Ms
}
export interface Family {
  timbre: Timbre
  notes: Record<Sound, readonly Note[]>
}

const PEAK = 0.5

export const lengthMsOf = (notes: readonly Note[]): Ms => Math.max(...notes.map((note) => note.atMs + note.lengthMs))

/** @returns mono samples in -1..1, whose highest is `PEAK`. The onset is the first sample. */
export function made({ timbre, notes }: Family, sound: Sound, sampleRate: Hertz): Float32Array {
  const own = notes[sound]
  const out = new Float32Array(Math.round((lengthMsOf(own) / 1000) * sampleRate))
  for (const note of own) addNote(out, note, timbre, sampleRate)
  const peak = out.reduce((most, one) => Math.max(most, Math.abs(one)), 0)
  return out.map((one) => (one * PEAK) / peak)
}

function addNote(out: Float32Array, note: Note, timbre: Timbre, sampleRate: Hertz): void {
  const { attackMs, decay, releaseMs } = timbre
  const from: Samples = Math.round((note.atMs / 1000) * sampleRate)
  const length: Samples = Math.round((note.lengthMs / 1000) * sampleRate)
  const glide = ((note.toHz ?? note.hz) - note.hz) / length
  let turns = 0
  for (let index = 0; index < length && from + index < out.length; index++) {
    const ms = (index / sampleRate) * 1000
    const edge = rise(ms / attackMs) * rise((note.lengthMs - ms) / releaseMs)
    let value = 0
    for (const { times, level, fades = 1 } of timbre.partials) {
      const hz = (note.hz + glide * index) * times
      // What a sampled sound cannot hold is left out.
      if (hz < sampleRate / 2.2)
        value += level * Math.exp((-decay * fades * ms) / note.lengthMs) * Math.sin(2 * Math.PI * turns * times)
    }
    out[from + index] = (out[from + index] ?? 0) + edge * value
    turns += (note.hz + glide * index) / sampleRate
  }
}

/** Half a wave of a cosine: it begins and ends without a corner, which would be heard as a click. */
const rise = (share: number): number => (share >= 1 ? 1 : share <= 0 ? 0 : (1 - Math.cos(Math.PI * share)) / 2)
