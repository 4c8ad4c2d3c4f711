import { idFrom, route } from '@/server/http'
import { findPublication, hostOf } from '@/server/publications'
import type { HostComment } from '@/core/publish/host'
import type { Share } from '@/core/units'

/** What came back of a published video. */
export interface CameBack {
  comments: HostComment[]
  /** Of 100 steps through the video; null where there is no telling. */
  retention: Share[] | null
}

export const GET = route<{ id: string }>(async ({ signal }, { id }) => {
  const publication = await findPublication(idFrom(id))
  const host = hostOf(publication)
  const { videoId } = publication
  const [comments, retention] = videoId
    ? await Promise.all([host.comments(videoId, signal), host.retention(videoId, signal)])
    : [[], null]
  return Response.json({ comments, retention } satisfies CameBack)
})
