// The overlay without the footage, on a ground that can be seen through: for whoever edits elsewhere.
import { createCanvas, type Canvas } from '@napi-rs/canvas'
import { copyFile, link, mkdir, writeFile } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { Readable, type Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { drawOverlay, type Frame } from '../core/look/drawOverlay'
import { USUAL_LOOK } from '../core/look/looks/family'
import { keyOf, type OverlayState } from '../core/look/overlay'
import type { Surface } from '../core/look/surface'
import { framesOf } from '../core/render/plan'
import { firstFrameAt } from '../core/render/runs'
import { frameMsOf, type Rate, type Share } from '../core/units'
import { QUIET } from './encoding'
import { registerFonts } from './fonts'
import { holdPictures } from './heldPictures'
import { holdInWebm } from './heldWebm'
import { patience } from './input'
import { picturePlan, type PicturePlan } from './picturePlan'
import { progressReader } from './progress'
import type { PictureJob } from './renderJob'
import { runTool } from './tool'

/** `mov`: ProRes 4444, as editing programs read it; straight alpha. `webm`: VP9, far smaller. */
export const OVERLAY_ENDINGS = ['mov', 'webm'] as const
export type OverlayEnding = (typeof OVERLAY_ENDINGS)[number]

const BT709 = ['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709']
/** How each picture is coded, needing no other, and how they are held for as long as they stand. */
interface Holding {
  coded: (rate: Rate) => readonly string[]
  hold: typeof holdPictures
}
const HOLDING: Readonly<Record<OverlayEnding, Holding>> = {
  mov: {
    coded: ({ num }) => [
      ...['-c:v', 'prores_ks', '-profile:v', '4444', '-pix_fmt', 'yuva444p10le', '-alpha_bits', '16', '-qscale:v', '9'],
      // So many units to a picture, as a whole number.
      ...['-video_track_timescale', String(num), '-f', 'mov'],
    ],
    hold: holdPictures,
  },
  webm: {
    coded: () => [
      ...['-c:v', 'libvpx-vp9', '-pix_fmt', 'yuva420p', '-crf', '22', '-b:v', '0', '-g', '0', '-deadline', 'realtime'],
      ...['-cpu-used', '8', '-row-mt', '1', '-auto-alt-ref', '0', '-lag-in-frames', '0', '-f', 'webm'],
    ],
    hold: holdInWebm,
  },
}

interface Writing {
  out: string
  /** A folder for what waits. */
  folder: string
  signal: AbortSignal
  onProgress?: (share: Share) => void
}

/**
 * Writes a video of the size, the rate and the length that a render of the same has. Each picture is coded once,
 * however long it stands. @throws Problem of ffmpeg.
 */
export async function writeOverlay(
  job: PictureJob,
  ending: OverlayEnding,
  { out, signal, onProgress }: Omit<Writing, 'folder'>,
): Promise<void> {
  const plan = picturePlan(job)
  const { facts, rate } = plan
  const { coded, hold } = HOLDING[ending]
  const stands = standsIn(plan)
  const states = new Map(stands.map(({ state }) => [keyOf(state), state]))
  const lengthMs = states.size * frameMsOf(rate)
  await runTool(
    'ffmpeg',
    [
      ...[...QUIET, '-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${facts.width}x${facts.height}`],
      ...['-framerate', `${rate.num}/${rate.den}`, '-i', 'pipe:3', '-vf', 'scale=out_color_matrix=bt709'],
      ...[...coded(rate), ...BT709, '-progress', 'pipe:1', `file:${out}`],
    ],
    {
      ...{ signal, limitMs: patience(lengthMs, 60), onOutput: progressReader(lengthMs, onProgress), extraPipes: 1 },
      feed: (child) => pipeline(Readable.from(pixelsOf(job, facts, states.values())), child.stdio[3] as Writable),
    },
  )
  const numbers = new Map([...states.keys()].map((key, number) => [key, number]))
  const shown = stands.flatMap(({ state, from, until }) =>
    Array<number>(until - from).fill(numbers.get(keyOf(state)) ?? 0),
  )
  await hold(out, shown, rate)
}

/** Red, green, blue and alpha of whole pictures, one after another. */
async function* pixelsOf(job: PictureJob, frame: Frame, states: Iterable<OverlayState | null>): AsyncGenerator<Buffer> {
  registerFonts()
  for (const state of states) {
    const { data } = pictureOf(job, frame, state).getContext('2d').getImageData(0, 0, frame.width, frame.height)
    yield Buffer.from(data.buffer)
  }
}

/**
 * Writes `overlay-000001.png` and so on, one for each picture of a render of the same. Equal ones are one file under
 * many names, so that a long session takes no more room than its changes do.
 * @param out a folder that is not there yet. @throws NodeJS.ErrnoException where it is.
 */
export async function writeOverlayPictures(job: PictureJob, { out, folder, signal }: Writing): Promise<void> {
  const plan = picturePlan(job)
  const stands = standsIn(plan)
  await mkdir(out)
  const files = await drawn(job, plan, stands, { folder, signal })
  for (const { state, from, until } of stands) {
    const path = join(folder, files.get(keyOf(state)) ?? '')
    for (let frame = from; frame < until; frame++) {
      signal.throwIfAborted()
      await named(path, join(out, `overlay-${String(frame + 1).padStart(6, '0')}.png`))
    }
  }
}

/** The same file under another name; a file has so many names at most, and then a copy takes its place. */
async function named(path: string, as: string): Promise<void> {
  await link(path, as).catch((error: NodeJS.ErrnoException) => {
    if (error.code !== 'EMLINK') throw error
    return copyFile(path, as)
  })
}

interface Stand {
  state: OverlayState | null
  /** Pictures `[from, until)`. */
  from: number
  until: number
}

/** What stands on which pictures, end to end from the first to the last. */
function standsIn({ changes, chunks, rate }: PicturePlan): Stand[] {
  const frames = framesOf(chunks)
  const frameMs = frameMsOf(rate)
  const all: Stand[] = []
  for (const { fromMs, state } of [{ fromMs: 0, state: null }, ...changes]) {
    const from = Math.min(frames, Math.max(0, firstFrameAt(fromMs, frameMs)))
    const last = all.at(-1)
    if (last) last.until = from
    all.push({ state, from, until: frames })
  }
  return all.filter(({ from, until }) => until > from)
}

/** @returns names of files in the folder, by the key of what they show. */
async function drawn(
  job: PictureJob,
  { facts }: PicturePlan,
  stands: readonly Stand[],
  { folder, signal }: Pick<Writing, 'folder' | 'signal'>,
): Promise<Map<string, string>> {
  registerFonts()
  const files = new Map<string, string>()
  for (const { state } of stands) {
    const key = keyOf(state)
    if (files.has(key)) continue
    signal.throwIfAborted()
    const path = join(folder, `state-${files.size}.png`)
    await writeFile(path, await pictureOf(job, facts, state).encode('png'))
    files.set(key, basename(path))
  }
  return files
}

function pictureOf({ look = USUAL_LOOK }: PictureJob, frame: Frame, state: OverlayState | null): Canvas {
  const canvas = createCanvas(frame.width, frame.height)
  if (state) drawOverlay(canvas.getContext('2d') as unknown as Surface, state, frame, look)
  return canvas
}
