// How a video is rendered: in chunks that are encoded apart and joined by a copy. A chunk has a key of all that it
// shows, so that what was rendered once is never rendered again.
import type { ShownSegment } from '../cut/cut'
import type { Aim } from '../cut/framing'
import type { OverlayChange } from '../look/overlay'
import { sum } from '../sum'
import { frameMsOf, SECOND, type Ms, type Rate, type Share } from '../units'
import { changesWithin, firstFrameAt, type Piece } from './runs'

/** Of the whole work of a render; then it is decoded and checked. */
export const RENDERED: Share = 0.88

/** Shorter ones are made where a source is shown for less. */
export const LEAST_CHUNK_MS: Ms = 4 * SECOND
export const MOST_CHUNK_MS: Ms = 12 * SECOND

/**
 * Divides pieces into chunks: between two segments where one is long enough, and evenly within longer ones.
 * @returns pieces of 12 s at most, end to end; of 4 s at least, but where a piece is shorter.
 */
export function chunksOf(pieces: readonly Piece[], shown: readonly ShownSegment[], rate: Rate): Piece[] {
  const frameMs = frameMsOf(rate)
  // Where the overlay changes, so that no chunk begins with what stood before it.
  const starts = shown.map(({ startMs }) => firstFrameAt(startMs, frameMs))
  const least = Math.ceil(LEAST_CHUNK_MS / frameMs),
    most = Math.floor(MOST_CHUNK_MS / frameMs)
  return pieces.flatMap((piece) => {
    const end = piece.first + piece.frames
    const marks = [piece.first]
    for (const start of starts) if (start - (marks.at(-1) ?? 0) >= least && end - start >= least) marks.push(start)
    return [...marks, end].flatMap((from, at, all): Piece[] => {
      const to = all[at + 1]
      return to === undefined ? [] : evenly(from, to, most).map(([first, last]) => partOf(piece, first, last, frameMs))
    })
  })
}

/** As few parts as can be, none longer than `most`. */
function evenly(from: number, to: number, most: number): [number, number][] {
  const parts = Math.ceil((to - from) / most)
  const at = (part: number): number => from + Math.round(((to - from) * part) / parts)
  return Array.from({ length: parts }, (_, part) => [at(part), at(part + 1)])
}

const partOf = (piece: Piece, first: number, last: number, frameMs: Ms): Piece => ({
  run: piece.run,
  first,
  frames: last - first,
  lengthMs: (last - first) * frameMs,
  fromMs: piece.fromMs + (first - piece.first) * frameMs * piece.run.rate,
})

/** One picture of a video, as a piece of its own. @param chunks that hold it. */
export function pictureIn(chunks: readonly Piece[], number: number, rate: Rate): Piece | null {
  const chunk = chunks.find(({ first, frames }) => first <= number && number < first + frames)
  return chunk ? partOf(chunk, number, number + 1, frameMsOf(rate)) : null
}

/** Whether a chunk goes on where the other one ends, so that both can be encoded in one pass. */
export const goesOn = (before: Piece, after: Piece): boolean =>
  before.run === after.run && before.first + before.frames === after.first

/** Of all of them. */
export const framesOf = (chunks: readonly Piece[]): number => sum(chunks.map(({ frames }) => frames))

/** Consecutive chunks in one, as they are encoded together. @param chunks one at least, each going on with the last. */
export function together(chunks: readonly Piece[]): Piece {
  const [first, ...others] = chunks
  if (!first) throw new RangeError('no chunks')
  return others.reduce(
    (whole, { frames, lengthMs }) => ({ ...whole, frames: whole.frames + frames, lengthMs: whole.lengthMs + lengthMs }),
    first,
  )
}

/**
 * Rows of chunks that are encoded in one pass, each of `most` at most.
 * @param chunks in order; where one is left out, what follows begins another row.
 */
export function rowsOf(chunks: readonly Piece[], most = Infinity): Piece[][] {
  const rows: Piece[][] = []
  for (const chunk of chunks) {
    const row = rows.at(-1)
    const last = row?.at(-1)
    if (row && last && row.length < most && goesOn(last, chunk)) row.push(chunk)
    else rows.push([chunk])
  }
  return rows
}

interface Recipe {
  rate: Rate
  changes: readonly OverlayChange[]
  /** What identifies the file that is shown; null for a card. */
  source: string | null
  /** Where the framing looks within it. */
  aims: readonly Aim[]
}

/** All that the pictures of a chunk depend on, but for what all chunks of a video have in common. */
export function recipeOf(chunk: Piece, { rate, changes, source, aims }: Recipe): string {
  const { run, frames, fromMs } = chunk
  return JSON.stringify({
    ...{ source, frames, aims, kind: typeof run.source === 'number' ? 'film' : run.source },
    // To a microsecond: sums of fractions differ by less, and times are told to ffmpeg no finer.
    ...{ fromMs: Math.round(fromMs * 1000) / 1000, rate: run.rate, mirrored: run.mirrored },
    overlay: changesWithin(changes, chunk, rate).map(({ fromMs: atMs, state }) => [
      Math.round(atMs * 1000) / 1000,
      // Which segment it is of is not seen.
      state && { ...state, segmentId: '' },
    ]),
  })
}
