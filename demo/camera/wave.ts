// Samples of simulated sound: read from a file, brought to another rate, added to what sounds already.
import { readFileSync } from 'node:fs'

/** Samples of a 16-bit mono WAV file with the usual short header, -1..1, brought to `rate` samples a second. */
export function readWave(file: string, rate: number): Float32Array {
  const wav = readFileSync(file)
  const samples = new Int16Array(new Uint8Array(wav.subarray(44)).buffer, 0, Math.floor((wav.length - 44) / 2))
  return resampled(
    Float32Array.from(samples, (value) => value / 32_768),
    rate / wav.readUInt32LE(24),
  )
}

/** So many times as long, by straight lines between samples. */
export function resampled(samples: Float32Array, factor: number): Float32Array {
  if (factor === 1) return samples
  return new Float32Array(Math.floor(samples.length * factor)).map((_, index) => {
    const at = index / factor
    const left = samples[Math.floor(at)] ?? 0,
      right = samples[Math.floor(at) + 1] ?? 0
    return left + (right - left) * (at % 1)
  })
}

/** Adds a sound from a sample on; what lies outside is cut off. */
export function addFrom(out: Float32Array, sound: Float32Array, from: number, gain: number): void {
  const low = Math.max(0, -from),
    high = Math.min(sound.length, out.length - from)
  for (let index = low; index < high; index++) out[from + index] = (out[from + index] ?? 0) + gain * (sound[index] ?? 0)
}
