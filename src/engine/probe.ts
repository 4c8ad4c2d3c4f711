// What a footage file is: its streams, size as displayed, rate and length, or one clear sentence why it will not do.
import { open, stat } from 'node:fs/promises'
import { z } from 'zod'
import type { Size } from '../core/cut/framing'
import { Problem } from '../core/problem'
import { DAY, type Ms, type Rate } from '../core/units'
import { patience, probeInput, refuseBeyond } from './input'
import { runTool } from './tool'

/**
 * Facts of a footage as they are kept; those that an older Jivet did not measure have the values it took for granted.
 */
export const footageFactsSchema = z.object({
  /** From instant 0 to the end of the last picture. */
  durationMs: z.number(),
  /**
   * Instant 0 of the footage in the container's own time, in seconds: where the earlier of picture and sound begins,
   * as they are presented. Everything that reads the file reckons from here.
   */
  zeroS: z.number().default(0),
  /** When the first picture, and the first sample of sound, are due after instant 0. */
  pictureFromMs: z.number().default(0),
  soundFromMs: z.number().default(0),
  /** As displayed: turned upright, with square pixels, made even as encoders need. */
  width: z.number(),
  height: z.number(),
  rate: z.object({ num: z.number(), den: z.number() }),
  videoCodec: z.string(),
  audioCodec: z.string().nullable(),
  audioRate: z.number().nullable(),
  audioChannels: z.number().nullable(),
  /** A browser plays it as it is, and from the same instant 0; otherwise a proxy is made. */
  browserPlayable: z.boolean(),
  /** Picture and sound end well before the length that the file announces. */
  brokenEnd: z.boolean(),
  /** When the camera began it, milliseconds since the epoch, if it wrote that down. */
  recordedMs: z.number().nullable().default(null),
  /** How it was filmed in high dynamic range; null where it was not, absent where nobody looked. */
  hdr: z.enum(['pq', 'hlg']).nullable().optional(),
  /**
   * By which matrix colours are made of its luma and chroma: as it says, or, where it says nothing, as players take a
   * picture of its size. `rgb` has none. Absent where nobody looked.
   */
  matrix: z.enum(['bt601', 'bt709', 'bt2020', 'rgb']).optional(),
  /** Whether black is 0 in it, not 16. Absent where nobody looked. */
  fullRange: z.boolean().optional(),
})
export type FootageFacts = z.infer<typeof footageFactsSchema>

const streamSchema = z.object({
  index: z.number(),
  codec_type: z.string().optional(),
  codec_name: z.string().optional(),
  pix_fmt: z.string().optional(),
  color_transfer: z.string().optional(),
  color_space: z.string().optional(),
  color_range: z.string().optional(),
  width: z.number().optional(),
  height: z.number().optional(),
  sample_aspect_ratio: z.string().optional(),
  avg_frame_rate: z.string().optional(),
  r_frame_rate: z.string().optional(),
  duration: z.string().optional(),
  sample_rate: z.string().optional(),
  channels: z.number().optional(),
  side_data_list: z.array(z.looseObject({ rotation: z.number().optional() })).optional(),
  disposition: z.looseObject({ attached_pic: z.number().optional() }).optional(),
})
const probeSchema = z.object({
  streams: z.array(streamSchema).default([]),
  format: z
    .looseObject({
      format_name: z.string().default(''),
      duration: z.string().optional(),
      tags: z.looseObject({ creation_time: z.string().optional() }).optional(),
    })
    .optional(),
})
type Stream = z.infer<typeof streamSchema>

const PLAYABLE_CONTAINERS = /mp4|webm|mov/
const PLAYABLE_VIDEO = new Set(['h264', 'vp8', 'vp9', 'av1'])
const PLAYABLE_AUDIO = new Set(['aac', 'mp3', 'opus', 'vorbis', 'flac'])
/** Text and pictures that ffmpeg also opens, but that nobody filmed. */
const NOT_FILMED = new Set(['ansi', 'text', 'png', 'mjpeg', 'bmp', 'tiff', 'webp', 'svg', 'gif', 'pcx', 'targa'])

/**
 * @throws Problem `empty-file`, `not-video`, `no-picture`, `no-frames`, `broken-end`, `footage-too-long` or
 * `picture-too-large`.
 */
export async function probeFootage(path: string, signal?: AbortSignal): Promise<FootageFacts> {
  if ((await stat(path)).size === 0) throw new Problem({ code: 'empty-file' })
  const { streams, format } = await ask(path, signal)
  const picture = streams.find((stream) => stream.codec_type === 'video' && !stream.disposition?.attached_pic)
  const sound = streams.find((stream) => stream.codec_type === 'audio') ?? null
  refuseWhatNobodyFilmed({ picture, sound, format })
  if (!picture) throw notVideo()
  const size = displayedSize(picture)
  refuseBeyond({ durationMs: 0, ...size })
  const [pictureS, soundS, ends] = await Promise.all([
    firstFrameS(path, 'V:0', signal),
    sound ? firstFrameS(path, 'a:0', signal) : null,
    lastPackets(path, signal),
  ])
  const pictureEndS = ends.get(picture.index)
  if (pictureS === null || pictureEndS === undefined) throw new Problem({ code: 'no-frames' })
  const zeroS = snapped(Math.min(pictureS, soundS ?? pictureS))
  const since = (seconds: number): Ms => Math.round((seconds - zeroS) * 1000)
  const timebase = {
    durationMs: since(Math.max(pictureEndS, pictureS)),
    zeroS,
    pictureFromMs: since(pictureS),
    soundFromMs: since(soundS ?? zeroS),
  }
  refuseBeyond({ ...timebase, ...size })
  const soundEndS = (sound && ends.get(sound.index)) ?? pictureEndS
  const announcedMs = Math.round(Number(format?.duration ?? picture.duration ?? 0) * 1000)
  return {
    ...timebase,
    ...size,
    ...soundFacts(sound),
    rate: rateOf(picture),
    videoCodec: picture.codec_name ?? 'unknown',
    ...colourFacts(picture, size),
    browserPlayable: isPlayable(picture, sound, format) && startsForAll(timebase),
    // Only where neither picture nor sound reaches it: a picture may well end before its sound.
    recordedMs: instantIn(format?.tags?.creation_time),
    brokenEnd: announcedMs - since(Math.max(pictureEndS, soundEndS)) > Math.max(1500, announcedMs * 0.01),
  }
}

/** By the names that ffprobe has for ITU-R BT.2100's transfer functions. */
const HDR_TRANSFERS: Readonly<Record<string, FootageFacts['hdr']>> = { smpte2084: 'pq', 'arib-std-b67': 'hlg' }
/** By the names that it has for matrices. */
const MATRICES: Readonly<Record<string, NonNullable<FootageFacts['matrix']>>> = {
  ...{ bt709: 'bt709', smpte170m: 'bt601', bt470bg: 'bt601', bt2020nc: 'bt2020', bt2020c: 'bt2020', gbr: 'rgb' },
}

function colourFacts(picture: Stream, size: Size): Pick<FootageFacts, 'hdr' | 'matrix' | 'fullRange'> {
  const hdr = HDR_TRANSFERS[picture.color_transfer ?? ''] ?? null
  const isRgb = /^(?:gbr|[rgb]{3}|bgra|rgba|argb|abgr)/.test(picture.pix_fmt ?? '')
  const usual = hdr ? 'bt2020' : usualMatrix(size)
  return {
    hdr,
    matrix: isRgb ? 'rgb' : (MATRICES[picture.color_space ?? ''] ?? usual),
    fullRange: !isRgb && picture.color_range === 'pc',
  }
}

/** How players take a picture that says nothing: of the size of television (ITU-R BT.601), or larger. */
export const usualMatrix = ({ width, height }: Size): 'bt601' | 'bt709' =>
  Math.min(width, height) <= 576 && Math.max(width, height) < 1280 ? 'bt601' : 'bt709'

/** Cameras without a clock write the year 1904 or 1970. */
function instantIn(text: string | undefined): number | null {
  const ms = Date.parse(text ?? '')
  return ms > 366 * DAY ? ms : null
}

interface Asked {
  picture: Stream | undefined
  sound: Stream | null
  format: z.infer<typeof probeSchema>['format']
}

function refuseWhatNobodyFilmed({ picture, sound, format }: Asked): void {
  if (!picture && sound) throw new Problem({ code: 'no-picture' })
  if (!picture?.width || !picture.height) throw notVideo()
  const still = NOT_FILMED.has(picture.codec_name ?? '') && !sound && !(Number(format?.duration) > 1)
  if (still || /tty|image2|_pipe|txt/.test(format?.format_name ?? '')) throw notVideo()
}

const soundFacts = (sound: Stream | null): Pick<FootageFacts, 'audioCodec' | 'audioRate' | 'audioChannels'> => ({
  audioCodec: sound?.codec_name ?? null,
  audioRate: sound?.sample_rate ? Number(sound.sample_rate) : null,
  audioChannels: sound?.channels ?? null,
})

function isPlayable(picture: Stream, sound: Stream | null, format: Asked['format']): boolean {
  const pixels = picture.pix_fmt === 'yuv420p' || picture.pix_fmt === 'yuvj420p'
  return (
    pixels &&
    PLAYABLE_CONTAINERS.test(format?.format_name ?? '') &&
    PLAYABLE_VIDEO.has(picture.codec_name ?? '') &&
    (sound === null || PLAYABLE_AUDIO.has(sound.codec_name ?? ''))
  )
}

/** Where next to nothing lies before the first instant, the container's own 0 is taken: all readers know that one. */
const snapped = (earliestS: number): number => (earliestS >= 0 && earliestS < NEXT_TO_NOTHING_S ? 0 : earliestS)
const NEXT_TO_NOTHING_S = 0.02

/** Readers agree on instant 0 only where the container's own 0 is it, and nothing comes much later. */
const startsForAll = ({
  zeroS,
  pictureFromMs,
  soundFromMs,
}: Pick<FootageFacts, 'zeroS' | 'pictureFromMs' | 'soundFromMs'>): boolean =>
  Math.abs(zeroS) < 0.002 && pictureFromMs <= LATE_MS && soundFromMs <= LATE_MS
/** A priming of sound, or the first of reordered pictures, comes no later than this. */
const LATE_MS = 90

/**
 * When the first decoded picture or sound is due, in the container's own time: edit lists, priming and negative times
 * are the decoder's to know.
 */
async function firstFrameS(path: string, stream: string, signal?: AbortSignal): Promise<number | null> {
  // A trimmed file begins with packets that are decoded and not shown, up to a whole group of pictures of them.
  return (await firstFrameWithin(24, path, stream, signal)) ?? (await firstFrameWithin(3000, path, stream, signal))
}

async function firstFrameWithin(
  packets: number,
  path: string,
  stream: string,
  signal: AbortSignal | undefined,
): Promise<number | null> {
  const text = await runTool(
    'ffprobe',
    [
      ...['-v', 'error', '-select_streams', stream, '-read_intervals', `%+#${packets}`],
      ...['-show_entries', 'frame=best_effort_timestamp_time', '-of', 'csv=p=0', ...probeInput(path)],
    ],
    { signal },
  ).catch((error: unknown) => {
    if (error instanceof Problem && error.code === 'tool-failed') return Buffer.alloc(0)
    throw error
  })
  const times = text
    .toString()
    .split('\n')
    .map((line) => Number.parseFloat(line))
    .filter((time) => Number.isFinite(time))
  return times.length ? Math.min(...times) : null
}

const notVideo = (): Problem => new Problem({ code: 'not-video' })

async function ask(path: string, signal?: AbortSignal): Promise<z.infer<typeof probeSchema>> {
  try {
    const text = await runTool(
      'ffprobe',
      ['-v', 'error', '-show_format', '-show_streams', '-of', 'json', ...probeInput(path)],
      { signal },
    )
    return probeSchema.parse(JSON.parse(text.toString()))
  } catch (error) {
    if (!(error instanceof Problem) || error.code !== 'tool-failed') throw error
    if (/moov atom not found|truncat|partial file/i.test(error.place ?? '') && (await isCutShort(path)))
      throw new Problem({ code: 'broken-end' })
    throw notVideo()
  }
}

const BOXES = /^(ftyp|moov|mdat|wide|free|skip|uuid|styp|moof|sidx|meta|pdin)$/

/**
 * Whether a file of boxes (ISO/IEC 14496-12) ends within a box that announces more, so that noise under a film's name,
 * and a whole file of another kind, are not taken for a film cut short. A recorder that was switched off leaves its
 * last box with length 0: to the end of the file.
 */
async function isCutShort(path: string): Promise<boolean> {
  const file = await open(path)
  try {
    const { size } = await file.stat()
    let at = 0
    for (let box = 0; box < 10_000 && at + 8 <= size; box++) {
      const { buffer } = await file.read(Buffer.alloc(16), 0, 16, at)
      if (!BOXES.test(buffer.toString('latin1', 4, 8))) return false
      const short = buffer.readUInt32BE(0)
      const bytes = short === 1 ? Number(buffer.readBigUInt64BE(8)) : short
      if (short === 0 || at + bytes > size) return true
      if (bytes < 8) return false
      at += bytes
    }
    return at > 0 && at < size
  } finally {
    await file.close()
  }
}

/**
 * When the last packet of each stream ends, in the container's own time (without decoding): a file cut short ends where
 * its packets end, whatever its header says. Packets that an edit list leaves out do not count.
 */
async function lastPackets(path: string, signal?: AbortSignal): Promise<Map<number, number>> {
  const lastS = new Map<number, number>()
  let rest = ''
  const take = (line: string): void => {
    const [stream, pts, duration, flags = ''] = line.split(',')
    const atS = Number(pts)
    if (!pts || !Number.isFinite(atS) || flags.includes('D')) return
    lastS.set(Number(stream), Math.max(lastS.get(Number(stream)) ?? -Infinity, atS + (Number(duration) || 0)))
  }
  const { size } = await stat(path)
  try {
    await runTool(
      'ffprobe',
      [
        ...['-v', 'error', '-show_entries', 'packet=stream_index,pts_time,duration_time,flags'],
        ...['-of', 'csv=p=0', ...probeInput(path)],
      ],
      {
        signal,
        // A slow disk reads ten megabytes a second.
        limitMs: patience(size / 10_000, 1),
        onOutput: (chunk) => {
          const lines = (rest + chunk.toString()).split('\n')
          rest = lines.pop() ?? ''
          lines.forEach(take)
        },
      },
    )
  } catch (error) {
    if (!(error instanceof Problem) || error.code !== 'tool-failed') throw error
  }
  take(rest)
  return lastS
}

function displayedSize(stream: Stream): { width: number; height: number } {
  const [num, den] = (stream.sample_aspect_ratio ?? '1:1').split(':').map(Number)
  const stretch = num && den ? num / den : 1
  const even = (value: number): number => Math.max(2, 2 * Math.floor(value / 2))
  const wide = even((stream.width ?? 0) * stretch),
    tall = even(stream.height ?? 0)
  const turned = (stream.side_data_list ?? []).some((data) => Math.abs(data.rotation ?? 0) % 180 === 90)
  return turned ? { width: tall, height: wide } : { width: wide, height: tall }
}

function rateOf(stream: Stream): Rate {
  for (const text of [stream.avg_frame_rate, stream.r_frame_rate]) {
    const [num, den] = (text ?? '').split('/').map(Number)
    if (num && den) return { num, den }
  }
  return { num: 30, den: 1 }
}
