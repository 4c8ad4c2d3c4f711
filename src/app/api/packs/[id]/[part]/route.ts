import { openAsBlob } from 'node:fs'
import { downloadZip, predictLength } from 'client-zip'
import { Problem } from '@/core/problem'
import { readChapters } from '@/core/write/chapters'
import { probeFootage } from '@/engine/probe'
import { withSoftText } from '@/engine/softText'
import { asAttachment, LENGTH_HEADER, textAttachment } from '@/server/attachment'
import { idFrom, route } from '@/server/http'
import { downloadName, findPack, type Pack } from '@/server/packs'
import { renderingOf } from '@/server/rendering'
import { serveFile } from '@/server/serveFile'
import { serveMade } from '@/server/serveMade'
import { storedFile } from '@/server/store'
import { drawnThumbnail } from '@/server/thumbnail'

/**
 * One part of what was rendered: `video` (as a download), `preview` (to play), `captions`, `chapters`, `description`,
 * `captioned` (the video with both inside), or `all` in one archive.
 */
export const GET = route<{ id: string; part: string }>(async (request, { id, part }) => {
  const pack = await findPack(idFrom(id))
  switch (part) {
    case 'video':
      return serveFile(request, await storedFile(pack.videoHash), {
        type: 'video/mp4',
        download: downloadName(pack.title, '.mp4'),
      })
    case 'preview':
      return serveFile(request, await storedFile(pack.videoHash), { type: 'video/mp4' })
    case 'captions':
      return textAttachment(pack.captions, 'text/vtt', downloadName(pack.title, '.vtt'))
    case 'chapters':
      return textAttachment(pack.chapters, 'text/plain', downloadName(pack.title, '-chapters.txt'))
    case 'description':
      return textAttachment(pack.description, 'text/plain', downloadName(pack.title, '-description.txt'))
    case 'captioned':
      return captioned(pack, request)
    case 'all':
      return zipOf(pack, request.signal)
    default:
      throw new Problem({ code: 'not-found', what: 'part' })
  }
})

/** The video with captions and chapters inside. */
async function captioned(pack: Pack, request: Request): Promise<Response> {
  const { title, captions, verified } = pack
  const video = await storedFile(pack.videoHash)
  const lengthMs = verified?.lengthMs ?? (await probeFootage(video, request.signal)).durationMs
  const text = { title, captions, chapters: readChapters(pack.chapters) }
  const serving = { type: 'video/mp4', download: downloadName(title, '-captioned.mp4') }
  return serveMade(request, serving, (out, folder) =>
    withSoftText({ video, lengthMs, ...text, out, folder, signal: request.signal }),
  )
}

/** As it is chosen now; none where nothing can be rendered any more. */
async function thumbnailFor({ workoutId }: Pack, signal: AbortSignal): Promise<Blob[]> {
  try {
    const rendering = await renderingOf(workoutId)
    return [new Blob([await drawnThumbnail(rendering, rendering.workout.thumbnail, signal)])]
  } catch (error) {
    if (error instanceof Problem && error.code !== 'cancelled') return []
    throw error
  }
}

/** Everything at once, streamed: the archive is never held in memory or on disk. */
async function zipOf(pack: Pack, signal: AbortSignal): Promise<Response> {
  const video = await openAsBlob(await storedFile(pack.videoHash)).catch(() => {
    throw new Problem({ code: 'not-found', what: 'stored video' })
  })
  const files = [
    {
      name: downloadName(pack.title, '.mp4'),
      input: video.stream(),
      size: pack.videoBytes,
      lastModified: pack.createdAt,
    },
    { name: downloadName(pack.title, '.vtt'), input: pack.captions, lastModified: pack.createdAt },
    { name: downloadName(pack.title, '-chapters.txt'), input: pack.chapters, lastModified: pack.createdAt },
    ...(pack.description
      ? [{ name: downloadName(pack.title, '-description.txt'), input: pack.description, lastModified: pack.createdAt }]
      : []),
    ...(await thumbnailFor(pack, signal)).map((picture) => ({
      ...{ name: downloadName(pack.title, '-thumbnail.jpg'), input: picture.stream(), size: picture.size },
      lastModified: new Date(),
    })),
  ]
  const zip = downloadZip(files)
  zip.headers.set('content-disposition', asAttachment(downloadName(pack.title, '.zip')))
  zip.headers.set(LENGTH_HEADER, String(predictLength(files)))
  return zip
}
