// One place for what the video is encoded with, so that all parts of it fit together and the benchmark measures
// against the same.
import { availableParallelism } from 'node:os'

export const ENCODER: readonly string[] = [
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '19', '-profile:v', 'high', '-pix_fmt', 'yuv420p'],
]
export const SOUND_ENCODER: readonly string[] = ['-c:a', 'aac', '-b:a', '192k']

export const QUIET = ['-v', 'error', '-nostdin', '-y'] as const

/**
 * For what runs several at once: threads of one encoder wait for one another, and two encoders with one thread each are
 * a tenth faster than one with two (docs/measurements.md). What they make is also the same on every machine.
 */
export const ONE_THREAD: readonly string[] = ['-threads', '1']

/** So many run at once on this machine, beside those of `JIVET_WORKERS` - 1 other workers. */
export const lanes = (): number =>
  Math.max(1, Math.round(availableParallelism() / Math.max(1, Number(process.env.JIVET_WORKERS) || 1)))
