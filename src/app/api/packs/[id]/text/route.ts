import { z } from 'zod'
import { idFrom, readBody, route } from '@/server/http'
import { saveDescription } from '@/server/packs'

/** More than any host takes; what a host takes is said before it is published. */
const MOST_LETTERS = 20_000
const bodySchema = z.object({ description: z.string().max(MOST_LETTERS) })

/** The description as somebody changed it; the next render carries the changes over. */
export const PUT = route<{ id: string }>(async (request, { id }) => {
  const { description } = await readBody(request, bodySchema)
  await saveDescription(idFrom(id), description)
  return Response.json({})
})
