// Reads ffmpeg's `-progress` output as a share of the whole.
import type { Ms, Share } from '../core/units'

export function progressReader(durationMs: Ms, onProgress?: (share: Share) => void): (chunk: Buffer) => void {
  return (chunk) => {
    const times = [...chunk.toString().matchAll(/out_time_us=(\d+)/g)]
    const last = times.at(-1)?.[1]
    if (last) onProgress?.(Math.min(1, Number(last) / 1000 / Math.max(1, durationMs)))
  }
}
