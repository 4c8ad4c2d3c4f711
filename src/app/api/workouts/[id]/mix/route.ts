import { mixSchema } from '@/core/sound/mix'
import { idFrom, readBody, route } from '@/server/http'
import { saveMix } from '@/server/workouts'

/** How loud footage and cues are, in the preview and in the render. */
export const PUT = route<{ id: string }>(async (request, { id }) => {
  const mix = await readBody(request, mixSchema)
  await saveMix(idFrom(id), mix)
  return Response.json(mix)
})
