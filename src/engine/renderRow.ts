// A row of chunks, encoded in one pass: a run of one source on the output's grid, with its own part of the overlay. It
// is divided where chunks end, into closed groups of pictures that are joined without being encoded again.
import { join } from 'node:path'
import type { Readable } from 'node:stream'
import { aimsWithin, partOf, type Aim, type Shape, type Size } from '../core/cut/framing'
import { overlayLayers } from '../core/look/drawOverlay'
import { pictureIn, together } from '../core/render/plan'
import { changesWithin, sourceOf, type Piece } from '../core/render/runs'
import { OVERLAY } from '../core/look/palette'
import { Problem } from '../core/problem'
import type { Ms, Rate, Share } from '../core/units'
import { encodersFor, ONE_THREAD, QUIET } from './encoding'
import { footageFrom, patience } from './input'
import { listInputs, overlaid } from './overlaid'
import type { PicturePlan } from './picturePlan'
import { progressReader } from './progress'
import { drawnIntoRange, intoRange, pixelsOf, taggedAs } from './range'
import type { Framed, PictureJob } from './renderJob'
import { drawStrips, measuringSurface } from './strip'
import { COPY_TIMES } from './timebase'
import { runTool } from './tool'

export interface RowWork {
  /** Where chunks are written, and what they are drawn from waits. */
  folder: string
  signal: AbortSignal
  /** Called with the share of the row. */
  onProgress?: (share: Share) => void
  /** Called as each chunk is finished, in order. */
  onChunk: (chunk: Piece, path: string) => Promise<void>
}

/** Renders chunks of a plan that go on one after another. @throws Problem of ffmpeg. */
export async function renderRow(
  job: PictureJob,
  plan: PicturePlan,
  row: readonly Piece[],
  { folder, signal, onProgress, onChunk }: RowWork,
): Promise<void> {
  const { facts: frame, rate, range } = plan
  const piece = together(row)
  const changes = changesWithin(plan.changes, piece, rate)
  const states = changes.flatMap(({ state }) => state ?? [])
  // Several rows share a folder.
  const name = `row-${piece.first}`
  const layers = overlayLayers(frame, states, measuringSurface(), job.look)
  const strips = await drawStrips({ name, layers, changes, frame, durationMs: piece.lengthMs, folder, signal })
  const encoders = encodersFor(job.purpose, job.encoder)
  const filters = [
    filterOf(job, plan, piece),
    ...overlaid(strips, range),
    `[picture]${encoders.handOver ?? 'null'}[out]`,
  ]
  const args = [
    ...[...QUIET, ...encoders.device, ...COPY_TIMES, ...inputOf(job, plan, piece), ...listInputs(strips)],
    ...['-filter_complex', filters.join(';'), '-map', '[out]'],
    ...[...encoders.picture, ...taggedAs(range), ...ONE_THREAD, '-frames:v', String(piece.frames)],
    ...['-r', gridOf(rate), '-fps_mode', 'passthrough'],
    ...['-progress', 'pipe:1', ...dividedInto(row, rate), join(folder, `${name}-%d.mp4`)],
  ]
  await runTool('ffmpeg', args, {
    signal,
    limitMs: patience(piece.lengthMs, 30),
    extraPipes: 1,
    onOutput: progressReader(piece.lengthMs, onProgress),
    feed: async (child) => {
      let next = 0,
        told = ''
      for await (const bytes of child.stdio[3] as unknown as Readable) {
        const [rest = '', ...files] = `${told}${String(bytes)}`.split('\n').reverse()
        told = rest
        for (const file of files.reverse()) {
          const chunk = row[next++]
          if (chunk) await onChunk(chunk, join(folder, file))
        }
      }
    },
  })
}

const gridOf = ({ num, den }: Rate): string => `${num}/${den}`

/** One file for each chunk; they are told on descriptor 3 as they are finished. */
function dividedInto(row: readonly Piece[], rate: Rate): string[] {
  const ends = row.slice(1).map(({ first }) => first - (row[0]?.first ?? 0))
  const divided = ends.length
    ? [
        ...['-force_key_frames', ends.map((frame) => ((frame * rate.den) / rate.num).toFixed(6)).join(',')],
        ...['-segment_frames', ends.join(',')],
      ]
    : ['-segment_time', '1000000']
  return [
    ...[...divided, '-f', 'segment', '-segment_format', 'mp4', '-reset_timestamps', '1'],
    ...['-segment_format_options', `video_track_timescale=${timescaleOf(rate)}`, '-avoid_negative_ts', 'disabled'],
    ...['-segment_list', 'pipe:3', '-segment_list_type', 'flat'],
  ]
}

function inputOf({ reel }: PictureJob, { facts, rate }: PicturePlan, piece: Piece): string[] {
  const { source, stillOf } = piece.run
  const file = typeof source === 'number' ? source : stillOf
  if (file === null)
    return ['-f', 'lavfi', '-i', `color=c=${CARD_GROUND}:s=${facts.width}x${facts.height}:r=${gridOf(rate)}`]
  const film = reel[file]
  if (!film) throw new Problem({ code: 'stored-file-gone' })
  return footageFrom(film.path, piece.fromMs - LEAD_MS)
}

/** Arguments for ffmpeg that write one picture of a video to its output, as PNG, without what is laid over it. */
export function filmedPicture(job: PictureJob, plan: PicturePlan, number: number): string[] {
  const piece = pictureIn(plan.chunks, number, plan.rate)
  if (!piece) throw new RangeError(`no picture ${number}`)
  // Readers of PNG would show it by the film's primaries and curve, which players of video do not.
  const filters = `${filterOf(job, plan, piece)};[under0]setparams=color_primaries=unknown:color_trc=unknown[picture]`
  return [
    ...[...QUIET, ...COPY_TIMES, ...inputOf(job, plan, piece), '-filter_complex', filters],
    ...['-map', '[picture]', '-frames:v', '1', '-c:v', 'png', '-f', 'image2pipe', 'pipe:1'],
  ]
}

/** From input 0 to `under0`. */
function filterOf({ reel, framing }: PictureJob, { facts, filmed, range, rate }: PicturePlan, piece: Piece): string {
  const { source, stillOf, mirrored } = piece.run
  const file = typeof source === 'number' ? source : stillOf
  const grid = gridOf(rate)
  const film = file === null ? null : reel[file]?.facts
  const isPart = film && framing && isPartOf(filmed, framing.shape)
  // Where a part of it is taken, what was filmed is first as large as its first file.
  const within = isPart ? filmed : facts
  const size = `${within.width}:${within.height}`
  const shape = `scale=${size}:force_original_aspect_ratio=decrease,pad=${size}:-1:-1,setsar=1,format=${pixelsOf(range)}`
  const chain = [
    ...(film ? onGrid(film.zeroS, piece, grid) : []),
    ...(source === 'still' ? ['trim=end_frame=1'] : []),
    ...(film ? intoRange(film, range) : drawnIntoRange(range, { alpha: false })),
    ...[shape, 'tpad=stop=-1:stop_mode=clone', `trim=end_frame=${piece.frames}`, onItsNumber(rate)],
    ...(isPart ? partOfPicture(partOf(filmed, framing.shape), facts, aimsIn(framing, file, piece)) : []),
    ...(mirrored ? ['hflip'] : []),
  ]
  return `[0:V:0]${chain.join(',')}[under0]`
}

function isPartOf(filmed: Size, shape: Shape): boolean {
  const { width, height } = partOf(filmed, shape)
  return width !== filmed.width || height !== filmed.height
}

const aimsIn = ({ aims }: Framed, file: number | null, piece: Piece): Aim[] =>
  aimsWithin((file === null ? null : aims[file]) ?? [], sourceOf(piece))

/** The part that is looked at, as large as the video; its place goes straight from point to point. */
function partOfPicture(part: Size, size: Size, aims: readonly Aim[]): string[] {
  const [first, ...others] = aims
  let before = first ?? { atMs: 0, at: 0.5 }
  // A sum of ramps: each begins where the one before has ended.
  const ramps = others.flatMap((aim) => {
    const lengthS = (aim.atMs - before.atMs) / 1000
    const ramp = `${((aim.at - before.at) / lengthS).toFixed(7)}*clip(t-${(before.atMs / 1000).toFixed(4)},0,${lengthS.toFixed(4)})`
    const isStill = aim.at === before.at || lengthS <= 0
    before = aim
    return isStill ? [] : [`+${ramp}`]
  })
  const at = `(${(first?.at ?? 0.5).toFixed(6)}${ramps.join('')})`
  return [
    `crop=w=${part.width}:h=${part.height}:x='(iw-ow)*${at}':y='(ih-oh)*${at}':exact=1`,
    `scale=${size.width}:${size.height}:flags=bicubic`,
  ]
}

/** Pictures at their numbers on the grid; reckoned in seconds some would be rounded down onto the one before. */
const onItsNumber = ({ num, den }: Rate): string => `settb=${den}/${num},setpts=N`

/** Behind a card's count and names. */
const CARD_GROUND = OVERLAY.ink.replace('#', '0x')

/** Decoding begins so much earlier: the picture that is shown at an instant may have come long before. */
const LEAD_MS: Ms = 1000

/** Times are rounded; a picture that is so little late is on time. */
const GRACE_S = 0.001

/** Each picture of the grid is the latest that was filmed by then; before the first, the first. */
const onGrid = (zeroS: number, { fromMs, run }: Piece, grid: string): string[] => [
  `setpts=(PTS-${zeroS + fromMs / 1000 + GRACE_S}/TB)/${run.rate || 1}`,
  `fps=fps=${grid}:start_time=0:round=up`,
]

/** A multiple of the rate, so that each picture has a whole length; fine enough for readers that round. */
const timescaleOf = ({ num }: Rate): number => num * Math.ceil(10_000 / num)
