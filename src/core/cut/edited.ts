// A cut that somebody made in another program: what of the footage is shown when, as an edit list has it.
import { filesInRow } from '../filesInRow'
import { Problem } from '../problem'
import type { EditedPiece } from '../read/editList'
import { HOUR, type Ms } from '../units'
import type { Cut } from './cut'
import type { LaidSegment } from './lane'
import { SpanList } from './spans'

/** A piece of footage, and where and how long it is shown. */
export interface Edit {
  fromMs: Ms
  toMs: Ms
  atMs: Ms
  lengthMs: Ms
}

/** Files of a reel in order: what they are called, without folders, and how long they are. */
export interface EditedReel {
  names: readonly string[]
  fileMs: readonly Ms[]
}

/** Times in lists are rounded to frames; a piece may end that much after its file. */
const GRACE_MS: Ms = 50

/**
 * Finds the file of each piece.
 * @returns in the same order, in the time of that file.
 * @throws Problem `edits-clip`, `edits-beyond` or `edits-order`, with the place.
 */
export function placedEdits(pieces: readonly EditedPiece[], reel: EditedReel): (Edit & { file: number })[] {
  const files = pieces.map((piece) => fileOf(piece, reel))
  const base = timecodeBase(pieces, files, reel)
  let last = { file: 0, toMs: 0 }
  return pieces.map(({ fromMs, toMs, atMs, lengthMs, place }, at) => {
    const file = files[at] ?? 0
    // What is shown again, or before what came earlier, would have its count run backwards.
    if (file < last.file || (file === last.file && fromMs < last.toMs - GRACE_MS))
      throw new Problem({ code: 'edits-order' }, place)
    last = { file, toMs }
    const footageMs = reel.fileMs[file] ?? 0
    if (fromMs < base || toMs - base > footageMs + GRACE_MS)
      throw new Problem({ code: 'edits-beyond', footageMs }, place)
    return { file, fromMs: fromMs - base, toMs: Math.min(footageMs, toMs - base), atMs, lengthMs }
  })
}

/** With one file all is of it, whatever the list calls it: programs write their own names there. */
function fileOf({ clip, place }: EditedPiece, { names }: EditedReel): number {
  if (names.length === 1) return 0
  const bare = (name: string): string => name.toLowerCase().replace(/\.[^.]*$/, '')
  const found = names.findIndex((name) => bare(name) === bare(clip))
  if (found < 0) throw new Problem({ code: 'edits-clip', found: clip }, place)
  return found
}

/** Cameras begin their timecode at a whole hour, where all pieces lie beyond the footage as it is. */
function timecodeBase(pieces: readonly EditedPiece[], files: readonly number[], { fileMs }: EditedReel): Ms {
  const first = Math.min(...pieces.map(({ fromMs }) => fromMs))
  const isBeyond = pieces.every(({ fromMs }, at) => fromMs >= (fileMs[files[at] ?? 0] ?? 0))
  return isBeyond ? Math.floor(first / HOUR) * HOUR : 0
}

/** Edits of files in the time of the whole reel. */
export function inReel(edits: readonly (Edit & { file: number })[], fileMs: readonly Ms[]): Edit[] {
  const { beginMs } = filesInRow(fileMs)
  return edits.map(({ file, fromMs, toMs, ...shown }) => {
    const begin = beginMs[file] ?? 0
    return { ...shown, fromMs: begin + fromMs, toMs: begin + toMs }
  })
}

/** @param edits in the time of the whole reel, in order. Where nothing is shown between two of them, a card is. */
export function editedCut(laid: readonly LaidSegment[], edits: readonly Edit[]): Cut {
  const list = new SpanList()
  for (const edit of edits) {
    if (edit.atMs > list.outMs) list.card(edit.atMs - list.outMs, null)
    show(list, laid, edit)
  }
  return list.cut
}

/** Divided where segments begin and end, so that each knows where it is shown. */
function show(list: SpanList, laid: readonly LaidSegment[], { fromMs, toMs, lengthMs }: Edit): void {
  if (toMs <= fromMs) return list.hold(fromMs + 1, lengthMs, { segmentId: null })
  const stretch = lengthMs / (toMs - fromMs)
  let at = fromMs
  const upTo = (end: Ms, segmentId: string | null): void => {
    if (end <= at) return
    list.show({ fromMs: at, toMs: end, segmentId, why: 'filmed', lengthMs: (end - at) * stretch })
    at = end
  }
  for (const { segment, fromMs: begin, toMs: end } of laid) {
    if (end <= fromMs || begin >= toMs) continue
    upTo(Math.max(at, begin), null)
    upTo(Math.min(toMs, end), segment.id)
  }
  upTo(toMs, null)
}
