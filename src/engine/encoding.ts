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
  /** Arguments before the inputs, and the filter that hands a picture over: for hardware that is asked for so. */
  device: readonly string[]
  handOver: string | null
}

/** 10 bits, in groups of pictures that are closed, and with one thread like all others. */
const HIGH_RANGE: readonly string[] = [
  ...['-c:v', 'libx265', '-preset', 'fast', '-crf', '18', '-forced-idr', '1', '-tag:v', 'hvc1'],
  ...['-x265-params', 'log-level=error:open-gop=0:pools=none:frame-threads=1', '-pix_fmt', 'yuv420p10le'],
]

const ENCODERS: Readonly<Record<Purpose, Pick<Encoders, 'picture' | 'sound'>>> = {
  host: { picture: picture('veryfast', 19), sound: sound('192k') },
  hdr: { picture: HIGH_RANGE, sound: sound('192k') },
  phone: { picture: picture('veryfast', 23, 'main'), sound: sound('128k') },
  small: { picture: picture('fast', 27), sound: sound('96k') },
  master: { picture: picture('medium', 12), sound: [...sound('320k'), ...QUICK_SOUND] },
  draft: { picture: picture('superfast', 27), sound: [...sound('96k'), ...QUICK_SOUND] },
}

/** Encoders of ffmpeg in hardware, the likelier to be as good first. Which of them are there: `engine/hardware`. */
export const IN_HARDWARE = ['h264_nvenc', 'h264_vaapi'] as const
export type InHardware = (typeof IN_HARDWARE)[number]

interface Hardware {
  device: readonly string[]
  handOver: string | null
  /** @param quality the quantiser to aim at, 0 to 51: less is better. */
  picture: (quality: number, profile: string) => string[]
}

/** No pictures that need later ones, and a group that is closed wherever it is told to begin: chunks are joined. */
const HARDWARE: Readonly<Record<InHardware, Hardware>> = {
  h264_nvenc: {
    ...{ device: [], handOver: null },
    picture: (quality, profile) => [
      ...['-c:v', 'h264_nvenc', '-preset', 'p5', '-rc', 'vbr', '-cq', String(quality), '-b:v', '0', '-bf', '0'],
      ...['-forced-idr', '1', '-profile:v', profile, '-pix_fmt', 'yuv420p'],
    ],
  },
  h264_vaapi: {
    ...{ device: ['-vaapi_device', '/dev/dri/renderD128'], handOver: 'format=nv12,hwupload' },
    picture: (quality, profile) => [
      ...['-c:v', 'h264_vaapi', '-rc_mode', 'CQP', '-qp', String(quality), '-bf', '0', '-profile:v', profile],
    ],
  },
}

/** What is to be as good as can be, or has more than 8 bits, is encoded by the processor. */
const QUALITY_IN_HARDWARE: Partial<Record<Purpose, { quality: number; profile: string }>> = {
  host: { quality: 21, profile: 'high' },
  phone: { quality: 25, profile: 'main' },
  small: { quality: 29, profile: 'high' },
  draft: { quality: 29, profile: 'high' },
}

export const mayBeInHardware = (purpose: Purpose): boolean => purpose in QUALITY_IN_HARDWARE

/** @param encoder one in hardware, where it is to be used. */
export function encodersFor(purpose: Purpose = USUAL_PURPOSE, encoder?: InHardware): Encoders {
  const usual = { ...ENCODERS[purpose], device: [], handOver: null }
  const wanted = QUALITY_IN_HARDWARE[purpose]
  if (!encoder || !wanted) return usual
  const { picture: pictureOf, ...hardware } = HARDWARE[encoder]
  return { ...usual, ...hardware, picture: pictureOf(wanted.quality, wanted.profile) }
}

export const QUIET = ['-v', 'error', '-nostdin', '-y'] as const

/**
 * For what runs several at once: threads of one encoder wait for one another, and two encoders with one thread each are
 * a tenth faster than one with two (docs/measurements.md). What they make is also the same on every machine.
 */
export const ONE_THREAD: readonly string[] = ['-threads', '1']

/** So many run at once on this machine, beside those of `JIVET_WORKERS` - 1 other workers. */
export const lanes = (): number =>
  Math.max(1, Math.round(availableParallelism() / Math.max(1, Number(process.env.JIVET_WORKERS) || 1)))
