import { describeSync, type Aligned } from '@/core/align/sync'
import { expand } from '@/core/expand/expand'
import { Problem } from '@/core/problem'
import { currentFootage, evidenceOf } from '@/server/footage'
import { heavy } from '@/server/heavy/heavy'
import { idFrom, route } from '@/server/http'
import { listStitches } from '@/server/stitches'
import { findWorkout } from '@/server/workouts'

/** Matches what was heard in the footage to the score. Proposes; the page decides what to keep and saves it. */
export const POST = route<{ id: string }>(async (request, { id }) => {
  const { id: workoutId, score } = await findWorkout(idFrom(id))
  const footage = await currentFootage(workoutId)
  if (!footage?.facts || footage.state !== 'ready') throw new Problem({ code: 'footage-not-ready' })
  const { durationMs } = footage.facts
  const { stitches } = await listStitches(footage.id)
  const hands = stitches.filter(({ origin }) => origin === 'hand')
  const task = { score, evidence: await evidenceOf(footage.id), footageMs: durationMs, hands }
  const { found, likeness } = await heavy('align', task, request.signal)
  const report = describeSync(expand(score).segments, found, durationMs)
  return Response.json({ ...report, found, likeness } satisfies Aligned)
})
