// Makes the picture that stands for a video, from its footage without what is laid over it.
import { createCanvas, loadImage } from '@napi-rs/canvas'
import type { Surface } from '../core/look/surface'
import { drawThumbnail, thumbnailSize, type Thumbnail } from '../core/look/thumbnail'
import { framesOf } from '../core/render/plan'
import { frameMsOf } from '../core/units'
import { registerFonts } from './fonts'
import { picturePlan } from './picturePlan'
import type { PictureJob } from './renderJob'
import { filmedPicture } from './renderRow'
import { runTool } from './tool'

const QUALITY = 90
/** Where nobody chose: the opening talk is over by then. */
const USUAL_SHARE = 1 / 3

/** @returns a JPEG. @throws Problem `cut-empty`, or of ffmpeg. */
export async function thumbnailOf(
  job: PictureJob,
  thumbnail: Thumbnail & { text: string },
  signal: AbortSignal,
): Promise<Uint8Array<ArrayBuffer>> {
  registerFonts()
  const plan = picturePlan(job)
  const frames = framesOf(plan.chunks)
  const { atMs } = thumbnail
  const wanted = atMs === null ? Math.round(frames * USUAL_SHARE) : Math.round(atMs / frameMsOf(plan.rate))
  const number = Math.max(0, Math.min(frames - 1, wanted))
  const picture = await loadImage(await runTool('ffmpeg', filmedPicture(job, plan, number), { signal }))
  const size = thumbnailSize(plan.facts)
  const canvas = createCanvas(size.width, size.height)
  const surface = canvas.getContext('2d')
  surface.drawImage(picture, 0, 0, size.width, size.height)
  drawThumbnail(surface as unknown as Surface, size, thumbnail)
  return new Uint8Array(await canvas.encode('jpeg', QUALITY))
}
