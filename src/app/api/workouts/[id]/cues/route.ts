import { cueWishesSchema } from '@/core/cue/wishes'
import { idFrom, readBody, route } from '@/server/http'
import { saveCues } from '@/server/workouts'

/** What viewers hear besides the footage, in the preview and in the render. */
export const PUT = route<{ id: string }>(async (request, { id }) => {
  const cues = await readBody(request, cueWishesSchema)
  await saveCues(idFrom(id), cues)
  return Response.json(cues)
})
