import { route } from '@/server/http'
import { usesOfMove } from '@/server/moves'

export const dynamic = 'force-dynamic'

export const GET = route(async (request) =>
  Response.json({ uses: await usesOfMove(new URL(request.url).searchParams.get('name') ?? '') }),
)
