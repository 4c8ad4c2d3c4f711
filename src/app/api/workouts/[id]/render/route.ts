import { Problem } from '@/core/problem'
import { currentFootage } from '@/server/footage'
import { idFrom, route } from '@/server/http'
import { createJob, recentJobs } from '@/server/jobs'
import { deliver } from '@/server/queue'
import { listStitches } from '@/server/stitches'
import { findWorkout } from '@/server/workouts'

export const POST = route<{ id: string }>(async (_request, { id }) => {
  const workout = await findWorkout(idFrom(id))
  const [footage, stitches, jobs] = await Promise.all([
    currentFootage(workout.id),
    listStitches(workout.id),
    recentJobs(workout.id),
  ])
  if (!footage || footage.state !== 'ready') throw new Problem('conflict', 'The footage is not ready yet.')
  if (!stitches.length)
    throw new Problem('not-stitched', 'No interval is tied to the footage yet. Stitch at least one in Sync.')
  if (jobs.some((job) => job.kind === 'render' && (job.state === 'queued' || job.state === 'active')))
    throw new Problem('busy', 'This workout is being rendered already.')
  const jobId = await createJob('render', workout.id, footage.id)
  await deliver(jobId)
  return Response.json({ jobId }, { status: 202 })
})
