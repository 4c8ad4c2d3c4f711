// Steps as bytes, for a file or the page: all energies, then all peaks, as 32-bit floats of this machine's order.
import { PEAKS_A_STEP, type Steps } from './loudness'

export function packSteps({ energy, peak }: Steps): Uint8Array<ArrayBuffer> {
  const both = new Float32Array(energy.length * (1 + PEAKS_A_STEP))
  both.set(energy)
  both.set(peak, energy.length)
  return new Uint8Array(both.buffer)
}

/** How many bytes a step takes. */
export const BYTES_A_STEP = 4 * (1 + PEAKS_A_STEP)

/** @param bytes a multiple of `BYTES_A_STEP`. */
export function unpackSteps(bytes: Uint8Array): Steps {
  const both = new Float32Array(Uint8Array.from(bytes).buffer)
  const length = both.length / (1 + PEAKS_A_STEP)
  return { energy: both.slice(0, length), peak: both.slice(length) }
}
