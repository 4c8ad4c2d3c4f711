import { removeWorkout } from '@/server/forGood'
import { idFrom, route } from '@/server/http'

export const DELETE = route<{ id: string }>(async (_request, { id }) => {
  await removeWorkout(idFrom(id))
  return new Response(null, { status: 204 })
})
