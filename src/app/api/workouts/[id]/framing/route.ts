import { framingSchema } from '@/core/cut/framing'
import { idFrom, readBody, route } from '@/server/http'
import { saveFraming } from '@/server/workouts'

/** What part of the picture is shown, in the preview and in the render. */
export const PUT = route<{ id: string }>(async (request, { id }) => {
  const framing = await readBody(request, framingSchema)
  await saveFraming(idFrom(id), framing)
  return Response.json(framing)
})
