// What the picture of a video will be, before any of it is rendered.
import { createHash } from 'node:crypto'
import { aimsWithin, framedSize, type Size } from '../core/cut/framing'
import { USUAL_LOOK } from '../core/look/looks/family'
import { overlayChanges, type OverlayChange } from '../core/look/overlay'
import { Problem } from '../core/problem'
import { chunksOf, recipeOf } from '../core/render/plan'
import { sizeFor, USUAL_PURPOSE } from '../core/render/purpose'
import { piecesOf, sourceOf, type Piece } from '../core/render/runs'
import type { Rate } from '../core/units'
import { hashOf } from './contentHash'
import { encodersFor } from './encoding'
import type { FootageFacts } from './probe'
import { programStamp } from './program'
import { intoRange, usualRange, type Range } from './range'
import { DRAWN, type PictureJob } from './renderJob'
import { MOST_RATE } from './timebase'

export interface PicturePlan {
  /** Of the first file, but for its size, which is that of the video. */
  facts: FootageFacts
  /** As the first file was filmed: a high one where that is to be kept. */
  range: Range
  /** Size of the first file. */
  filmed: Size
  /** The video's pictures stand so long each. */
  rate: Rate
  changes: readonly OverlayChange[]
  /** In order, end to end. */
  chunks: readonly Piece[]
}

/** @throws Problem `cut-empty`, `not-hdr`. */
export function picturePlan({ reel, cut, shown, viewing, framing, purpose = USUAL_PURPOSE }: PictureJob): PicturePlan {
  if (!cut.spans.length) throw new Problem({ code: 'cut-empty' })
  const filmed = reel[0]?.facts ?? DRAWN
  const facts = { ...filmed, ...sizeFor(framedSize(filmed, framing?.shape ?? 'filmed'), purpose) }
  const range = purpose === 'hdr' ? filmed.hdr : usualRange(filmed)
  if (!range) throw new Problem({ code: 'not-hdr' })
  const changes = overlayChanges(shown, viewing)
  const rate = gridOf(facts.rate)
  return { facts, filmed, range, rate, changes, chunks: chunksOf(piecesOf(cut, rate), shown, rate) }
}

const gridOf = (rate: Rate): Rate => (rate.num / rate.den > MOST_RATE ? { num: MOST_RATE, den: 1 } : rate)

/** @returns of each chunk the key of all that it shows: equal keys are the same pictures, encoded alike. */
export async function chunkKeys(
  { reel, look = USUAL_LOOK, framing, purpose, encoder }: PictureJob,
  { facts, filmed, range, rate, changes, chunks }: PicturePlan,
): Promise<string[]> {
  // Of the same bytes, what is taken for another light, or other colours, is another picture.
  const films = await Promise.all(
    reel.map(async (file) => [await hashOf(file), ...intoRange(file.facts, range)].join(' ')),
  )
  const { width, height } = facts
  const common = JSON.stringify([
    ...[programStamp(), encodersFor(purpose, encoder).picture, { width, height }],
    ...[filmed.width, filmed.height, range, rate, look],
  ])
  return chunks.map((chunk) => {
    const { source, stillOf } = chunk.run
    const file = typeof source === 'number' ? source : stillOf
    const aims = file === null || !framing ? [] : aimsWithin(framing.aims[file] ?? [], sourceOf(chunk))
    const shown = file === null ? null : (films[file] ?? null)
    const recipe = recipeOf(chunk, { rate, changes, source: shown, aims })
    return createHash('sha256')
      .update(common)
      .update(framing?.shape ?? 'filmed')
      .update(recipe)
      .digest('hex')
  })
}
