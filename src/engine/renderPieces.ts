// The picture of a cut, piece by piece: each run of a source is encoded alone on the output's grid, with its own part
// of the overlay, and the pieces are joined without being encoded again.
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Span } from '../core/cut/cut'
import { aimsWithin, framedSize, partOf, type Aim, type Shape, type Size } from '../core/cut/framing'
import { changesWithin, piecesOf, type Piece } from '../core/render/runs'
import { OVERLAY } from '../core/look/palette'
import { Problem } from '../core/problem'
import { sum } from '../core/sum'
import type { Ms, Rate, Share } from '../core/units'
import { ENCODER, QUIET } from './encoding'
import { footageFrom, patience } from './input'
import { listInputs, overlaid } from './overlaid'
import { progressReader } from './progress'
import type { PictureParts, RenderJob } from './renderJob'
import { drawStrip } from './strip'
import { COPY_TIMES, MOST_RATE } from './timebase'
import { runTool } from './tool'

/** @returns arguments that open the picture, for ffmpeg. */
export async function renderPieces(job: RenderJob, parts: PictureParts): Promise<string[]> {
  const { facts, layers, changes, folder, signal } = parts
  const rate = gridOf(facts.rate)
  const pieces = piecesOf(job.cut, rate)
  const total = sum(pieces.map(({ frames }) => frames))
  const drawn = layers.map(() => new Map<string, string>())
  const lines = ['ffconcat version 1.0']
  let done = 0
  for (const [number, piece] of pieces.entries()) {
    const own = changesWithin(changes, piece, rate)
    const lists: string[] = []
    for (const [at, layer] of layers.entries()) {
      const strip = { name: `layer${at}`, list: `layer${at}-${number}.txt`, files: drawn[at], layer, changes: own }
      lists.push(await drawStrip({ ...strip, frame: facts, durationMs: piece.lengthMs, folder, signal }))
    }
    const begun = done
    const onProgress = (share: Share): void => job.onProgress?.((begun + share * piece.frames) / total)
    await renderPiece(job, { ...parts, piece, rate, lists, onProgress, out: join(folder, `piece-${number}.mp4`) })
    lines.push(`file piece-${number}.mp4`, `duration ${(piece.lengthMs / 1000).toFixed(6)}`)
    done += piece.frames
  }
  const list = join(folder, 'pieces.txt')
  await writeFile(list, `${lines.join('\n')}\n`)
  return ['-f', 'concat', '-safe', '0', '-i', list]
}

const gridOf = (rate: Rate): Rate => (rate.num / rate.den > MOST_RATE ? { num: MOST_RATE, den: 1 } : rate)

interface PieceParts extends PictureParts {
  piece: Piece
  rate: Rate
  lists: readonly string[]
  out: string
  /** Called with the share of the piece. */
  onProgress: (share: Share) => void
}

async function renderPiece({ reel, framing }: RenderJob, parts: PieceParts): Promise<void> {
  const { piece, rate, facts, filmed, layers, lists, out, onProgress, signal } = parts
  const { source, stillOf } = piece.run
  const { lengthMs } = piece
  const file = typeof source === 'number' ? source : stillOf
  const grid = `${rate.num}/${rate.den}`
  const input =
    file === null
      ? ['-f', 'lavfi', '-i', `color=c=${CARD_GROUND}:s=${facts.width}x${facts.height}:r=${grid}`]
      : filmInput(reel[file], piece)
  // A card is drawn as large as the video; what was filmed as large as its first file, and then a part of it is taken.
  const within = file === null ? facts : filmed
  const size = `${within.width}:${within.height}`
  const shape = `scale=${size}:force_original_aspect_ratio=decrease,pad=${size}:-1:-1,setsar=1,format=yuv420p`
  const chain = [
    ...(file === null ? [] : onGrid(reel[file]?.facts.zeroS ?? 0, piece, grid)),
    ...(source === 'still' ? ['trim=end_frame=1'] : []),
    ...[shape, 'tpad=stop=-1:stop_mode=clone', `trim=end_frame=${piece.frames}`, `setpts=N/(${grid})/TB`],
    ...(file === null || !framing
      ? []
      : partOfPicture(filmed, framing.shape, aimsWithin(framing.aims[file] ?? [], pieceRun(piece)))),
    ...(piece.run.mirrored ? ['hflip'] : []),
  ]
  const base = `[0:V:0]${chain.join(',')}[under0]`
  await runTool(
    'ffmpeg',
    [
      ...[...QUIET, ...COPY_TIMES, ...input, ...listInputs(lists)],
      ...['-filter_complex', [base, ...overlaid(layers)].join(';'), '-map', '[picture]', ...ENCODER],
      ...['-frames:v', String(piece.frames), '-r', grid, '-fps_mode', 'passthrough'],
      ...['-video_track_timescale', String(timescaleOf(rate)), '-f', 'mp4', '-progress', 'pipe:1', out],
    ],
    { signal, limitMs: patience(lengthMs, 30), onOutput: progressReader(lengthMs, onProgress) },
  )
}

const pieceRun = ({ fromMs, lengthMs, run }: Piece): Pick<Span, 'fromMs' | 'lengthMs' | 'rate'> => ({
  ...{ fromMs, lengthMs, rate: run.rate },
})

/** The part that is looked at, as large as the video; its place goes straight from point to point. */
function partOfPicture(filmed: Size, shape: Shape, aims: readonly Aim[]): string[] {
  const part = partOf(filmed, shape),
    size = framedSize(filmed, shape)
  if (part.width === filmed.width && part.height === filmed.height) return []
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

/** Behind a card's count and names. */
const CARD_GROUND = OVERLAY.ink.replace('#', '0x')

/** Decoding begins so much earlier: the picture that is shown at an instant may have come long before. */
const LEAD_MS: Ms = 1000

function filmInput(file: RenderJob['reel'][number] | undefined, { fromMs }: Piece): string[] {
  if (!file) throw new Problem({ code: 'stored-file-gone' })
  return footageFrom(file.path, fromMs - LEAD_MS)
}

/** Times are rounded; a picture that is so little late is on time. */
const GRACE_S = 0.001

/** Each picture of the grid is the latest that was filmed by then; before the first, the first. */
const onGrid = (zeroS: number, { fromMs, run }: Piece, grid: string): string[] => [
  `setpts=(PTS-${zeroS + fromMs / 1000 + GRACE_S}/TB)/${run.rate || 1}`,
  `fps=fps=${grid}:start_time=0:round=up`,
]

/** A multiple of the rate, so that each picture has a whole length; fine enough for readers that round. */
const timescaleOf = ({ num }: Rate): number => num * Math.ceil(10_000 / num)
