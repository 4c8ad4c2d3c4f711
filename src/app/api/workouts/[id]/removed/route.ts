import { z } from 'zod'
import { idFrom, readBody, route } from '@/server/http'
import { setRemoved } from '@/server/workouts'

export const PUT = route<{ id: string }>(async (request, { id }) => {
  const { removed } = await readBody(request, z.object({ removed: z.boolean() }))
  await setRemoved(idFrom(id), removed)
  return Response.json({ removed })
})
