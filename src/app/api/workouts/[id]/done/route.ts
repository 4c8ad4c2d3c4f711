import { idFrom, route } from '@/server/http'
import { doneOf } from '@/server/workoutState'

export const dynamic = 'force-dynamic'

/** Which steps from score to ship are done. */
export const GET = route<{ id: string }>(async (_request, { id }) =>
  Response.json(await doneOf(idFrom(id)), { headers: { 'cache-control': 'no-store' } }),
)
