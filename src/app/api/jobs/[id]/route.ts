import { idFrom, route } from '@/server/http'
import { cancelJob } from '@/server/jobs'

export const DELETE = route<{ id: string }>(async (_request, { id }) => {
  await cancelJob(idFrom(id))
  return new Response(null, { status: 204 })
})
