import { Problem } from '@/core/problem'
import { currentFootage } from '@/server/footage'
import { idFrom, route } from '@/server/http'
import { createJob, recentJobs } from '@/server/jobs'
import { deliver } from '@/server/queue'
import { listStitches } from '@/server/stitches'
import { findWorkout } from '@/server/workouts'

export const POST = route<{ id: string }>(async (_request, { id }) => {
  const workout = await findWorkout(idFrom(id))
  const [footage, jobs] = await Promise.all([currentFootage(workout.id), recentJobs(workout.id)])
  if (!footage || footage.state !== 'ready') throw new Problem({ code: 'footage-not-ready' })
  if (!(await listStitches(footage.id)).stitches.length) throw new Problem({ code: 'not-stitched' })
  if (jobs.some((job) => job.kind === 'render' && (job.state === 'queued' || job.state === 'active')))
    throw new Problem({ code: 'already-rendering' })
  const jobId = await createJob('render', workout.id, footage.id)
  await deliver(jobId)
  return Response.json({ jobId }, { status: 202 })
})
