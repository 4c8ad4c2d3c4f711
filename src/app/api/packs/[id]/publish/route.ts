import { idFrom, route } from '@/server/http'
import { findPack } from '@/server/packs'
import { askToPublish } from '@/server/publications'
import { publishingOf } from '@/server/publishing'

/** What stands in the way of publishing a video. */
export const GET = route<{ id: string }>(async (request, { id }) =>
  Response.json(await publishingOf(await findPack(idFrom(id)), request.signal)),
)

export const POST = route<{ id: string }>(async (_request, { id }) => {
  const jobId = await askToPublish(await findPack(idFrom(id)))
  return Response.json({ jobId }, { status: 202 })
})
