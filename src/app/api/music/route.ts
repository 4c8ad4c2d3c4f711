import { bodyOf, route } from '@/server/http'
import { keepMusic, knownMusic } from '@/server/music'

export const dynamic = 'force-dynamic'

const MOST_BYTES = 200 * 1024 * 1024

/** Pieces that were brought, for any workout. */
export const GET = route(async () => Response.json({ pieces: await knownMusic() }))

/** A piece more; the body is a sound file of any kind. */
export const POST = route(async (request) => {
  const name = new URL(request.url).searchParams.get('name') ?? ''
  return Response.json({ piece: await keepMusic(name, bodyOf(request, MOST_BYTES), request.signal) })
})
