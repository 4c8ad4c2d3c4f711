// Brings what is sounded to one loudness, so that a level says how loud it is, whatever it is.
import type { Sound } from '../cue/cue'
import type { Hertz, Samples } from '../units'
import { soundOf } from './families'
import type { FamilyName } from './families/names'
import { energiesOf, gainOf, integrated, loudestStep } from './loudness'
import { CUE_LUFS } from './mix'

/** A sound of a family, as loud as every other. */
export function tone(family: FamilyName, sound: Sound, rate: Hertz): Float32Array {
  const samples = soundOf(family, sound, rate)
  return scaled(samples, gainOf(CUE_LUFS - loudestStep(energiesOf(samples, rate))))
}

/** Quieter than the loudest of it by so much, it is no part of what was said. */
const SILENT_BELOW = gainOf(-42)
/** What is left before and after, so that no consonant is lost. */
const MARGIN_MS = 25
const FADE_MS = 8

/** A line that was spoken, without the silence around it and as loud as every other; empty where nothing was said. */
export function spokenLine(samples: Float32Array, rate: Hertz): Float32Array {
  const highest = samples.reduce((most, one) => Math.max(most, Math.abs(one)), 0)
  const isLoud = (one: number): boolean => Math.abs(one) > Math.max(1e-4, highest * SILENT_BELOW)
  const first = samples.findIndex(isLoud)
  if (first < 0) return new Float32Array(0)
  const margin: Samples = Math.round((MARGIN_MS * rate) / 1000)
  const own = samples.slice(Math.max(0, first - margin), samples.findLastIndex(isLoud) + margin)
  fadeEdges(own, Math.round((FADE_MS * rate) / 1000))
  const energies = energiesOf(own, rate)
  return scaled(own, gainOf(CUE_LUFS - (integrated(energies) ?? loudestStep(energies))))
}

function fadeEdges(samples: Float32Array, length: Samples): void {
  const count = Math.min(length, samples.length >> 1)
  for (let at = 0; at < count; at++) {
    const share = (at + 0.5) / count
    samples[at] = (samples[at] ?? 0) * share
    const end = samples.length - 1 - at
    samples[end] = (samples[end] ?? 0) * share
  }
}

/** Never beyond full scale, whatever loudness that costs. */
function scaled(samples: Float32Array, gain: number): Float32Array {
  const highest = samples.reduce((most, one) => Math.max(most, Math.abs(one)), 0)
  const own = Math.min(gain, 1 / Math.max(highest, 1e-6))
  return samples.map((one) => one * own)
}
