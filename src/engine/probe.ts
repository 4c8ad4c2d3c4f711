// What a footage file is: its streams, size as displayed, rate and length, or one clear sentence why it will not do.
import { open, stat } from 'node:fs/promises'
import { z } from 'zod'
import { Problem } from '../core/problem'
import type { Ms, Rate } from '../core/units'
import { runTool } from './tool'

export interface FootageFacts {
  durationMs: Ms
  /** As displayed: turned upright, with square pixels, made even as encoders need. */
  width: number
  height: number
  rate: Rate
  videoCodec: string
  audioCodec: string | null
  audioRate: number | null
  audioChannels: number | null
  /** A browser plays it as it is; otherwise a proxy is made. */
  browserPlayable: boolean
  /** Picture and sound end well before the length that the file announces. */
  brokenEnd: boolean
}

const streamSchema = z.object({
  codec_type: z.string().optional(),
  codec_name: z.string().optional(),
  pix_fmt: z.string().optional(),
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
  format: z.looseObject({ format_name: z.string().default(''), duration: z.string().optional() }).optional(),
})
type Stream = z.infer<typeof streamSchema>

const PLAYABLE_CONTAINERS = /mp4|webm|mov/
const PLAYABLE_VIDEO = new Set(['h264', 'vp8', 'vp9', 'av1'])
const PLAYABLE_AUDIO = new Set(['aac', 'mp3', 'opus', 'vorbis', 'flac'])
/** Text and pictures that ffmpeg also opens, but that nobody filmed. */
const NOT_FILMED = new Set(['ansi', 'text', 'png', 'mjpeg', 'bmp', 'tiff', 'webp', 'svg', 'gif', 'pcx', 'targa'])

/** @throws Problem `empty-file`, `not-video`, `no-picture` or `broken-end`. */
export async function probeFootage(path: string, signal?: AbortSignal): Promise<FootageFacts> {
  if ((await stat(path)).size === 0)
    throw new Problem('empty-file', 'This file is empty: it holds 0 bytes. Copy it from the camera again.')
  const { streams, format } = await ask(path, signal)
  const picture = streams.find((stream) => stream.codec_type === 'video' && !stream.disposition?.attached_pic)
  const sound = streams.find((stream) => stream.codec_type === 'audio') ?? null
  if (!picture && sound)
    throw new Problem('no-picture', 'This file has sound but no picture. Add the video file of the session.')
  if (!picture?.width || !picture.height) throw notVideo()
  const still = NOT_FILMED.has(picture.codec_name ?? '') && !sound && !(Number(format?.duration) > 1)
  if (still || /tty|image2|_pipe|txt/.test(format?.format_name ?? '')) throw notVideo()
  const announcedMs = Math.round(Number(format?.duration ?? picture.duration ?? 0) * 1000)
  const measured = await measurePicture(path, signal)
  const codecs = { videoCodec: picture.codec_name ?? 'unknown', audioCodec: sound?.codec_name ?? null }
  return {
    durationMs: measured.durationMs,
    ...displayedSize(picture),
    rate: rateOf(picture),
    ...codecs,
    audioRate: sound?.sample_rate ? Number(sound.sample_rate) : null,
    audioChannels: sound?.channels ?? null,
    browserPlayable:
      PLAYABLE_CONTAINERS.test(format?.format_name ?? '') &&
      PLAYABLE_VIDEO.has(codecs.videoCodec) &&
      (picture.pix_fmt === 'yuv420p' || picture.pix_fmt === 'yuvj420p') &&
      (codecs.audioCodec === null || PLAYABLE_AUDIO.has(codecs.audioCodec)),
    brokenEnd: announcedMs - measured.durationMs > Math.max(1500, announcedMs * 0.01),
  }
}

const notVideo = (): Problem =>
  new Problem('not-video', 'This is not a video that can be read. Footage is a file such as MP4, MOV, MKV or WebM.')

async function ask(path: string, signal?: AbortSignal): Promise<z.infer<typeof probeSchema>> {
  try {
    const text = await runTool(
      'ffprobe',
      ['-v', 'error', '-show_format', '-show_streams', '-of', 'json', `file:${path}`],
      { signal },
    )
    return probeSchema.parse(JSON.parse(text.toString()))
  } catch (error) {
    if (!(error instanceof Problem) || error.code !== 'tool-failed') throw error
    if (/moov atom not found|truncat|partial file/i.test(error.place ?? '') && (await beginsLikeFilm(path))) {
      throw new Problem(
        'broken-end',
        'The end of this file is missing, and without it the rest cannot be read. Copy it from the camera again.',
      )
    }
    throw notVideo()
  }
}

/** The first box of an ISO media file (ISO/IEC 14496-12), so that noise under a film's name is not taken for a film cut short. */
async function beginsLikeFilm(path: string): Promise<boolean> {
  const file = await open(path)
  try {
    const { buffer } = await file.read(Buffer.alloc(12), 0, 12, 0)
    return /^(ftyp|moov|mdat|wide|free|skip)$/.test(buffer.toString('latin1', 4, 8))
  } finally {
    await file.close()
  }
}

/**
 * Reads every picture packet's time (without decoding). A file cut short ends where its packets end, whatever its
 * header says.
 */
async function measurePicture(path: string, signal?: AbortSignal): Promise<{ durationMs: Ms }> {
  let rest = '',
    firstMs = Infinity,
    lastMs = 0,
    packets = 0
  const take = (line: string): void => {
    const [pts, duration] = line.split(',')
    const atMs = Number(pts) * 1000
    if (!pts || !Number.isFinite(atMs)) return
    packets++
    firstMs = Math.min(firstMs, atMs)
    lastMs = Math.max(lastMs, atMs + (Number(duration) || 0) * 1000)
  }
  try {
    await runTool(
      'ffprobe',
      [
        '-v',
        'error',
        '-select_streams',
        'V:0',
        '-show_entries',
        'packet=pts_time,duration_time',
        '-of',
        'csv=p=0',
        `file:${path}`,
      ],
      {
        signal,
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
  if (!packets)
    throw new Problem('broken-end', 'This file announces a picture but holds none. Copy it from the camera again.')
  return { durationMs: Math.round(lastMs - Math.min(firstMs, lastMs)) }
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
