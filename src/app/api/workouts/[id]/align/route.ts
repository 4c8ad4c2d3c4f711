import { describeSync, type Aligned } from '@/core/align/sync'
import { expand } from '@/core/expand/expand'
import { Problem } from '@/core/problem'
import { currentFootage, evidenceOf } from '@/server/footage'
import { heavy } from '@/server/heavy/heavy'
import { idFrom, route } from '@/server/http'
import { findWorkout } from '@/server/workouts'

/** Matches what was heard in the footage to the score. Proposes; the page decides what to keep and saves it. */
export const POST = route<{ id: string }>(async (request, { id }) => {
  const { id: workoutId, score } = await findWorkout(idFrom(id))
  const footage = await currentFootage(workoutId)
  if (!footage?.facts || footage.state !== 'ready') throw new Problem({ code: 'footage-not-ready' })
  const found = await heavy('align', { score, evidence: await evidenceOf(footage.id) }, request.signal)
  const report = describeSync(expand(score).segments, found, footage.facts.durationMs)
  return Response.json({ ...report, found } satisfies Aligned)
})
