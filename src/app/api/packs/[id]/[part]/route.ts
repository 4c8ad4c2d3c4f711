import { Problem } from '@/core/problem'
import { idFrom, route } from '@/server/http'
import { downloadName, findPack } from '@/server/packs'
import { serveFile } from '@/server/serveFile'
import { storedPath } from '@/server/store'

/** One part of what was rendered: `video` (as a download), `preview` (to play), `captions` or `chapters`. */
export const GET = route<{ id: string; part: string }>(async (request, { id, part }) => {
  const pack = await findPack(idFrom(id))
  switch (part) {
    case 'video': return serveFile(request, storedPath(pack.videoHash), { type: 'video/mp4', download: downloadName(pack.title, '.mp4') })
    case 'preview': return serveFile(request, storedPath(pack.videoHash), { type: 'video/mp4' })
    case 'captions': return text(pack.captions, 'text/vtt', downloadName(pack.title, '.vtt'))
    case 'chapters': return text(pack.chapters, 'text/plain', downloadName(pack.title, '-chapters.txt'))
    default: throw new Problem('not-found', 'There is no such part.')
  }
})

function text(content: string, type: string, name: string): Response {
  return new Response(content, { headers: { 'content-type': `${type}; charset=utf-8`, 'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}` } })
}
