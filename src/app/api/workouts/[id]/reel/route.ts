import { z } from 'zod'
import { idFrom, readBody, route } from '@/server/http'
import { tellChange } from '@/server/jobs'
import { orderReel } from '@/server/reel'

const bodySchema = z.object({ order: z.array(z.uuid()).max(1000).nullable() })

/** Puts the files in an order by hand; null: in the order in which they were filmed. */
export const PUT = route<{ id: string }>(async (request, { id }) => {
  const { order } = await readBody(request, bodySchema)
  await orderReel(idFrom(id), order)
  await tellChange(id)
  return Response.json({ order })
})
