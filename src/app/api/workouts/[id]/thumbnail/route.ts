import { thumbnailSchema } from '@/core/look/thumbnail'
import { issueToProblem } from '@/core/read/workoutFile'
import { asAttachment } from '@/server/attachment'
import { idFrom, route } from '@/server/http'
import { downloadName } from '@/server/packs'
import { settingRoute } from '@/server/saveSetting'
import { renderingOf } from '@/server/rendering'
import { drawnThumbnail } from '@/server/thumbnail'

/** What is asked for, as a JPEG; what is not asked for is as it was saved. `?download` names it for keeping. */
export const GET = route<{ id: string }>(async (request, { id }) => {
  const { workout, job } = await renderingOf(idFrom(id))
  const { download, atMs, ...asked } = Object.fromEntries(new URL(request.url).searchParams)
  const at = atMs === undefined ? {} : { atMs: Number(atMs) }
  const read = thumbnailSchema.safeParse({ ...workout.thumbnail, ...asked, ...at })
  if (!read.success) throw issueToProblem(read.error, 'request')
  const headers = new Headers({ 'content-type': 'image/jpeg', 'cache-control': 'no-store' })
  if (download !== undefined)
    headers.set('content-disposition', asAttachment(downloadName(workout.score.title, '-thumbnail.jpg')))
  return new Response(await drawnThumbnail({ workout, job }, read.data, request.signal), { headers })
})

export const PUT = settingRoute('thumbnail')
