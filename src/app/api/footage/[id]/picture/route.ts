import { Problem } from '@/core/problem'
import { findFootage } from '@/server/footage'
import { idFrom, route } from '@/server/http'
import { serveFile } from '@/server/serveFile'
import { storedFile } from '@/server/store'

/** What the browser plays: the proxy where there is one, else the footage itself. */
export const GET = route<{ id: string }>(async (request, { id }) => {
  const { hash, proxyHash, facts } = await findFootage(idFrom(id))
  const played = proxyHash ?? hash
  if (!played || !facts) throw new Problem({ code: 'footage-not-ready' })
  return serveFile(request, await storedFile(played), {
    type: !proxyHash && /^vp|^av1/.test(facts.videoCodec) ? 'video/webm' : 'video/mp4',
  })
})
