// One place for what videos are encoded with, so that all parts of it fit together and the benchmark measures
// against the same.
import { availableParallelism } from 'node:os'
import { USUAL_PURPOSE, type Purpose } from '../core/render/purpose'

const picture = (preset: string, crf: number, profile = 'high'): readonly string[] => [
  ...['-c:v', 'libx264', '-preset', preset, '-crf', String(crf), '-profile:v', profile, '-pix_fmt', 'yuv420p'],
]
const sound = (bitrate: string): readonly string[] => ['-c:a', 'aac', '-b:a', bitrate]

/**
 * Half of the time. At 320k it is also nearer to what it encodes, at 192k and less further from it
 * (docs/measurements.md).
 */
export const QUICK_SOUND: readonly string[] = ['-aac_coder', 'fast']

export interface Encoders {
  picture: readonly string[]
  sound: readonly string[]
}

/** 10 bits, in groups of pictures that are closed, and with one thread like all others. */
const HIGH_RANGE: readonly string[] = [
  ...['-c:v', 'libx265', '-preset', 'fast', '-crf', '18', '-forced-idr', '1', '-tag:v', 'hvc1'],
  ...['-x265-params', 'log-level=error:open-gop=0:pools=none:frame-threads=1', '-pix_fmt', 'yuv420p10le'],
]

const ENCODERS: Readonly<Record<Purpose, Encoders>> = {
  host: { picture: picture('veryfast', 19), sound: sound('192k') },
  hdr: { picture: HIGH_RANGE, sound: sound('192k') },
  phone: { picture: picture('veryfast', 23, 'main'), sound: sound('128k') },
  small: { picture: picture('fast', 27), sound: sound('96k') },
  master: { picture: picture('medium', 12), sound: [...sound('320k'), ...QUICK_SOUND] },
  draft: { picture: picture('superfast', 27), sound: [...sound('96k'), ...QUICK_SOUND] },
}

export const encodersFor = (purpose: Purpose = USUAL_PURPOSE): Encoders => ENCODERS[purpose]

export const QUIET = ['-v', 'error', '-nostdin', '-y'] as const

/**
 * For what runs several at once: threads of one encoder wait for one another, and two encoders with one thread each are
 * a tenth faster than one with two (docs/measurements.md). What they make is also the same on every machine.
 */
export const ONE_THREAD: readonly string[] = ['-threads', '1']

/** So many run at once on this machine, beside those of `JIVET_WORKERS` - 1 other workers. */
export const lanes = (): number =>
  Math.max(1, Math.round(availableParallelism() / Math.max(1, Number(process.env.JIVET_WORKERS) || 1)))
