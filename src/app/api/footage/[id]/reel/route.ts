import { z } from 'zod'
import { findFootage } from '@/server/footage'
import { idFrom, readBody, route } from '@/server/http'
import { tellChange } from '@/server/jobs'
import { putAside, standAlone, takeIntoReel } from '@/server/reel'

const bodySchema = z.object({ as: z.enum(['taken', 'aside', 'alone']) })
const CHANGES = { taken: takeIntoReel, aside: putAside, alone: standAlone }

/**
 * Takes footage into the reel, puts it aside, or makes a file of its own out of a second camera; its ties stay with it.
 */
export const PUT = route<{ id: string }>(async (request, { id }) => {
  const body = await readBody(request, bodySchema)
  const { workoutId } = await findFootage(idFrom(id))
  await CHANGES[body.as](id)
  await tellChange(workoutId)
  return Response.json(body)
})
