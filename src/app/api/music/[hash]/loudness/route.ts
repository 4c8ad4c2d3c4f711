import { packSteps } from '@/core/sound/steps'
import { pieceLoudness } from '@/engine/music'
import { route } from '@/server/http'
import { musicFile } from '@/server/music'

/** How loud a piece is in a mix of `channels` (1 or 2), as `packSteps` has it. */
export const GET = route<{ hash: string }>(async (request, { hash }) => {
  const channels = new URL(request.url).searchParams.get('channels') === '1' ? 1 : 2
  const steps = await pieceLoudness(await musicFile(hash), channels, request.signal)
  return new Response(steps ? packSteps(steps) : new Uint8Array(), {
    headers: { 'content-type': 'application/octet-stream', 'cache-control': 'private, max-age=3600' },
  })
})
