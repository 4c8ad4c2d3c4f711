import { Problem } from '@/core/problem'
import { listMoves, moveChangeSchema, removeMove, saveMove } from '@/server/moves'
import { readBody, route } from '@/server/http'

export const dynamic = 'force-dynamic'

export const GET = route(async () => Response.json({ moves: await listMoves() }))

export const PUT = route(async (request) => {
  await saveMove(await readBody(request, moveChangeSchema))
  return Response.json({ moves: await listMoves() })
})

export const DELETE = route(async (request) => {
  const name = new URL(request.url).searchParams.get('name')
  if (!name) throw new Problem({ code: 'move-name-missing' })
  await removeMove(name)
  return Response.json({ moves: await listMoves() })
})
