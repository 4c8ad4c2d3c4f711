import { route } from '@/server/http'
import { forgetMusic, musicFile } from '@/server/music'
import { serveFile } from '@/server/serveFile'

/** The piece itself. */
export const GET = route<{ hash: string }>(async (request, { hash }) =>
  serveFile(request, (await musicFile(hash)).path, { type: 'audio/flac' }),
)

export const DELETE = route<{ hash: string }>(async (_request, { hash }) => {
  await forgetMusic(hash)
  return new Response(null, { status: 204 })
})
