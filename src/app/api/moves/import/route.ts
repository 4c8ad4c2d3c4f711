import { z } from 'zod'
import { readMoves } from '@/core/read/moveFile'
import { readBody, route } from '@/server/http'
import { listMoves, takeMoves } from '@/server/moves'

const bodySchema = z.object({ text: z.string().max(8 * 1024 * 1024), name: z.string().max(1000) })

/** Takes the moves of a CSV or JSON file that are right, and says which are not. */
export const POST = route(async (request) => {
  const { text, name } = await readBody(request, bodySchema)
  const { moves, problems } = readMoves(text, name)
  await takeMoves(moves)
  return Response.json({ taken: moves.length, problems, moves: await listMoves() })
})
