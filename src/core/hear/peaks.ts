// Waveform peaks at several zoom levels, computed once from a stream of samples and drawn from ever after.
import { filesInRow } from '../filesInRow'
import { sum } from '../sum'
import type { Hertz, Ms, Samples } from '../units'

/**
 * Samples per pair at each level, at `PEAKS_RATE`; each is a power of the one before, so levels build on one another.
 */
export const PEAKS_RATE: Hertz = 16_000
export const PEAK_STEPS: readonly Samples[] = [64, 512, 4096, 32_768]

/** Interleaved minimum and maximum per step, as -127..127. */
export interface PeakLevel {
  step: Samples
  pairs: Int8Array
}

export class PeakGatherer {
  private readonly fine: number[] = []
  private low = 0
  private high = 0
  private filled: Samples = 0

  /** @param samples mono, -1..1, at `PEAKS_RATE`. */
  push(samples: Float32Array): void {
    for (const sample of samples) {
      if (sample < this.low) this.low = sample
      if (sample > this.high) this.high = sample
      if (++this.filled === PEAK_STEPS[0]) this.flush()
    }
  }

  /** @returns one level per entry of `PEAK_STEPS`; a last, shorter step counts as a whole one. */
  finish(): PeakLevel[] {
    if (this.filled) this.flush()
    const levels: PeakLevel[] = [{ step: PEAK_STEPS[0] ?? 64, pairs: Int8Array.from(this.fine) }]
    for (const step of PEAK_STEPS.slice(1)) {
      const finer = levels.at(-1)
      if (finer) levels.push({ step, pairs: coarsen(finer.pairs, step / finer.step) })
    }
    return levels
  }

  private flush(): void {
    this.fine.push(Math.round(Math.max(-1, this.low) * 127), Math.round(Math.min(1, this.high) * 127))
    this.low = this.high = this.filled = 0
  }
}

function coarsen(pairs: Int8Array, factor: number): Int8Array {
  const out = new Int8Array(Math.ceil(pairs.length / 2 / factor) * 2)
  for (let pair = 0; pair < pairs.length / 2; pair++) {
    const to = Math.floor(pair / factor) * 2
    out[to] = Math.min(out[to] ?? 0, pairs[pair * 2] ?? 0)
    out[to + 1] = Math.max(out[to + 1] ?? 0, pairs[pair * 2 + 1] ?? 0)
  }
  return out
}

/** Levels as one file: for each a little-endian header of step and pair count (32 bits each), then its bytes. */
export function packPeaks(levels: readonly PeakLevel[]): Uint8Array {
  const out = new Uint8Array(levels.reduce((sum, level) => sum + 8 + level.pairs.length, 0))
  const view = new DataView(out.buffer)
  let at = 0
  for (const { step, pairs } of levels) {
    view.setUint32(at, step, true)
    view.setUint32(at + 4, pairs.length / 2, true)
    out.set(new Uint8Array(pairs.buffer, pairs.byteOffset, pairs.length), at + 8)
    at += 8 + pairs.length
  }
  return out
}

/** The twin of `packPeaks`. */
export function unpackPeaks(bytes: Uint8Array): PeakLevel[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const levels: PeakLevel[] = []
  for (let at = 0; at + 8 <= bytes.length;) {
    const length = view.getUint32(at + 4, true) * 2
    levels.push({
      step: view.getUint32(at, true),
      pairs: new Int8Array(bytes.buffer, bytes.byteOffset + at + 8, length).slice(),
    })
    at += 8 + length
  }
  return levels
}

/** Waveforms of files end to end, to the nearest step of each level. @param fileMs lengths of the files, in order. */
export function joinedPeaks(files: readonly (readonly PeakLevel[])[], fileMs: readonly Ms[]): PeakLevel[] {
  const { beginMs } = filesInRow(fileMs)
  return PEAK_STEPS.map((step) => {
    const placeOf = (ms: Ms): number => Math.round((ms * PEAKS_RATE) / 1000 / step)
    const pairs = new Int8Array(2 * placeOf(sum(fileMs)))
    files.forEach((levels, at) => {
      const from = placeOf(beginMs[at] ?? 0),
        to = placeOf((beginMs[at] ?? 0) + (fileMs[at] ?? 0))
      const level = levels.find((one) => one.step === step)
      if (level) pairs.set(level.pairs.subarray(0, 2 * (to - from)), 2 * from)
    })
    return { step, pairs }
  })
}
