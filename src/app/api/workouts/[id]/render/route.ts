import { Problem } from '@/core/problem'
import { sql } from '@/server/db'
import { currentFootage } from '@/server/footage'
import { idFrom, route } from '@/server/http'
import { addJob } from '@/server/jobs'
import { redoOf } from '@/server/redo'
import { listStitches } from '@/server/stitches'
import { findWorkout } from '@/server/workouts'

/** What a render would have to make. */
export const GET = route<{ id: string }>(async (_request, { id }) => Response.json(await redoOf(idFrom(id))))

export const POST = route<{ id: string }>(async (_request, { id }) => {
  const workout = await findWorkout(idFrom(id))
  const footage = await currentFootage(workout.id)
  // Without footage the plan itself is drawn.
  if (footage && footage.state !== 'ready') throw new Problem({ code: 'footage-not-ready' })
  if (footage && !(await listStitches(workout.id)).stitches.length) throw new Problem({ code: 'not-stitched' })
  const jobId = await addJob(sql(), { kind: 'render', workoutId: workout.id, footageId: footage?.id ?? null })
  if (!jobId) throw new Problem({ code: 'already-rendering' })
  return Response.json({ jobId }, { status: 202 })
})
