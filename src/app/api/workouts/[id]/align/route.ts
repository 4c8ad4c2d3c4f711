import { syncByBeeps } from '@/core/align/sync'
import { expand } from '@/core/expand/expand'
import { Problem } from '@/core/problem'
import { beepsOf, currentFootage } from '@/server/footage'
import { idFrom, route } from '@/server/http'
import { findWorkout } from '@/server/workouts'

/** Matches the beeps heard in the footage to the score. Proposes; the page decides what to keep and saves it. */
export const POST = route<{ id: string }>(async (_request, { id }) => {
  const workout = await findWorkout(idFrom(id))
  const footage = await currentFootage(workout.id)
  if (!footage?.facts || footage.state !== 'ready') throw new Problem('conflict', 'The footage is not ready yet.')
  const { segments } = expand(workout.score)
  return Response.json(syncByBeeps(segments, await beepsOf(footage.id), footage.facts.durationMs))
})
