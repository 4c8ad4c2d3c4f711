import { lookSchema } from '@/core/look/looks/family'
import { idFrom, readBody, route } from '@/server/http'
import { saveLook } from '@/server/workouts'

/** How viewers are shown what they read, in the preview and in the render. */
export const PUT = route<{ id: string }>(async (request, { id }) => {
  const look = await readBody(request, lookSchema)
  await saveLook(idFrom(id), look)
  return Response.json(look)
})
