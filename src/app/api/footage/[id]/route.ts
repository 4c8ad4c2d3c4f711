import { removeFootage } from '@/server/forGood'
import { idFrom, route } from '@/server/http'

export const DELETE = route<{ id: string }>(async (_request, { id }) => {
  await removeFootage(idFrom(id))
  return new Response(null, { status: 204 })
})
