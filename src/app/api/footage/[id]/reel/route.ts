import { z } from 'zod'
import { findFootage, putAside, takeIntoReel } from '@/server/footage'
import { idFrom, readBody, route } from '@/server/http'
import { tellChange } from '@/server/jobs'

/** Takes footage into the reel, in the place of what is there, or puts it aside; either way its ties stay with it. */
export const PUT = route<{ id: string }>(async (request, { id }) => {
  const { taken } = await readBody(request, z.object({ taken: z.boolean() }))
  const { workoutId } = await findFootage(idFrom(id))
  await (taken ? takeIntoReel(id) : putAside(id))
  await tellChange(workoutId)
  return Response.json({ taken })
})
