import { z } from 'zod'
import { scoreSchema } from '@/core/score/score'
import { idFrom, readBody, route } from '@/server/http'
import { findWorkout, saveScore } from '@/server/workouts'

const bodySchema = z.object({ score: scoreSchema, revision: z.number().int().min(1) })

export const GET = route<{ id: string }>(async (_request, { id }) => {
  const { score, scoreRevision } = await findWorkout(idFrom(id))
  return Response.json({ score, revision: scoreRevision })
})

export const PUT = route<{ id: string }>(async (request, { id }) => {
  const { score, revision } = await readBody(request, bodySchema)
  return Response.json({ revision: await saveScore(idFrom(id), score, revision) })
})
