import { z } from 'zod'
import { Problem } from '@/core/problem'
import { issueToProblem } from '@/core/read/workoutFile'
import { PURPOSES, USUAL_PURPOSE, type Purpose } from '@/core/render/purpose'
import { sql } from '@/server/db'
import { currentFootage } from '@/server/footage'
import { idFrom, route } from '@/server/http'
import { addJob } from '@/server/jobs'
import { redoOf } from '@/server/redo'
import { reelOf } from '@/server/reel'
import { listStitches } from '@/server/stitches'
import { findWorkout } from '@/server/workouts'

const purposeSchema = z.enum(PURPOSES).nullable()

/** What `?for=` says. @throws Problem `bad-document`. */
function purposeIn(request: Request): Purpose {
  const read = purposeSchema.safeParse(new URL(request.url).searchParams.get('for'))
  if (!read.success) throw issueToProblem(read.error, 'request')
  return read.data ?? USUAL_PURPOSE
}

/** What a render would have to make. */
export const GET = route<{ id: string }>(async (request, { id }) =>
  Response.json(await redoOf(idFrom(id), purposeIn(request))),
)

export const POST = route<{ id: string }>(async (request, { id }) => {
  const purpose = purposeIn(request)
  const workout = await findWorkout(idFrom(id))
  const footage = await currentFootage(workout.id)
  // Without footage the plan itself is drawn.
  if (footage && footage.state !== 'ready') throw new Problem({ code: 'footage-not-ready' })
  if (footage && !(await listStitches(workout.id)).stitches.length) throw new Problem({ code: 'not-stitched' })
  if (purpose === 'hdr' && !(await reelOf(workout.id)).files[0]?.facts.hdr) throw new Problem({ code: 'not-hdr' })
  const jobId = await addJob(sql(), { kind: 'render', workoutId: workout.id, footageId: footage?.id ?? null, purpose })
  if (!jobId) throw new Problem({ code: 'already-rendering' })
  return Response.json({ jobId }, { status: 202 })
})
