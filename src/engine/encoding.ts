// One place for what the video is encoded with, so that all parts of it fit together and the benchmark measures
// against the same.

export const ENCODER: readonly string[] = [
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '19', '-profile:v', 'high', '-pix_fmt', 'yuv420p'],
]
export const SOUND_ENCODER: readonly string[] = ['-c:a', 'aac', '-b:a', '192k']

export const QUIET = ['-v', 'error', '-nostdin', '-y'] as const

/** Where several workers share a machine, each has its part of the cores. */
export const ownThreads = (): string[] => (process.env.JIVET_THREADS ? ['-threads', process.env.JIVET_THREADS] : [])
