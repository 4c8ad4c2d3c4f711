import { idFrom, route } from '@/server/http'
import { progressOf } from '@/server/progress'
import { findWorkout } from '@/server/workouts'

export const dynamic = 'force-dynamic'

/** A workout's footage, jobs and newest pack, whole. */
export const GET = route<{ id: string }>(async (_request, { id }) => {
  const { id: workoutId } = await findWorkout(idFrom(id))
  return Response.json(await progressOf(workoutId), { headers: { 'cache-control': 'no-store' } })
})
