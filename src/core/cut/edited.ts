// A cut that somebody made in another program: what of the footage is shown when, as an edit list has it.
import { filesInRow } from '../filesInRow'
import { Problem } from '../problem'
import type { EditedPiece } from '../read/editList'
import { HOUR, type Ms } from '../units'
import type { Cut } from './cut'
import type { LaidSegment } from './lane'
import { SpanList } from './spans'

interface Reel {
  /** Of its files in order, without folders. */
  names: readonly string[]
  fileMs: readonly Ms[]
}

/** Times in lists are rounded to frames; a piece may end that much after its file. */
const GRACE_MS: Ms = 50

/**
 * @param pieces in order of the video's time. Where nothing is shown between two of them, a card is.
 * @returns a cut in the time of the whole reel. @throws Problem `edits-clip` or `edits-beyond` with the piece's place.
 */
export function editedCut(laid: readonly LaidSegment[], pieces: readonly EditedPiece[], reel: Reel): Cut {
  const { beginMs } = filesInRow(reel.fileMs)
  const list = new SpanList()
  const begins = pieces.map((piece) => fileOf(piece, reel))
  const base = timecodeBase(pieces, begins, reel)
  for (const [at, piece] of pieces.entries()) {
    const file = begins[at] ?? 0
    const length = reel.fileMs[file] ?? 0
    const from = Math.max(0, piece.fromMs - base),
      to = Math.min(length, piece.toMs - base)
    if (piece.fromMs < base || piece.toMs - base > length + GRACE_MS)
      throw new Problem({ code: 'edits-beyond', footageMs: length }, piece.place)
    if (piece.atMs > list.outMs) list.card(piece.atMs - list.outMs, null)
    const offset = beginMs[file] ?? 0
    showPiece(list, laid, { fromMs: offset + from, toMs: offset + to, lengthMs: piece.lengthMs })
  }
  return list.cut
}

/** With one file all is of it, whatever the list calls it: programs write their own names there. */
function fileOf({ clip, place }: EditedPiece, { names }: Reel): number {
  if (names.length === 1) return 0
  const bare = (name: string): string => name.toLowerCase().replace(/\.[^.]*$/, '')
  const found = names.findIndex((name) => bare(name) === bare(clip))
  if (found < 0) throw new Problem({ code: 'edits-clip', found: clip }, place)
  return found
}

/** Cameras begin their timecode at a whole hour, where all pieces lie beyond the footage as it is. */
function timecodeBase(pieces: readonly EditedPiece[], files: readonly number[], { fileMs }: Reel): Ms {
  const first = Math.min(...pieces.map(({ fromMs }) => fromMs))
  const isBeyond = pieces.every(({ fromMs }, at) => fromMs >= (fileMs[files[at] ?? 0] ?? 0))
  return isBeyond ? Math.floor(first / HOUR) * HOUR : 0
}

/** Divided where segments begin and end, so that each knows where it is shown. */
function showPiece(
  list: SpanList,
  laid: readonly LaidSegment[],
  { fromMs, toMs, lengthMs }: { fromMs: Ms; toMs: Ms; lengthMs: Ms },
): void {
  const stretch = toMs > fromMs ? lengthMs / (toMs - fromMs) : 0
  if (!stretch) return list.hold(fromMs + 1, lengthMs, { segmentId: null })
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
