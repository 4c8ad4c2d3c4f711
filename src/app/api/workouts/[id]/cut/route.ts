import { cutWishesSchema } from '@/core/cut/fit'
import { idFrom, readBody, route } from '@/server/http'
import { saveCut } from '@/server/workouts'

/** How the footage is cut, in the preview and in the render. */
export const PUT = route<{ id: string }>(async (request, { id }) => {
  const cut = await readBody(request, cutWishesSchema)
  await saveCut(idFrom(id), cut)
  return Response.json(cut)
})
