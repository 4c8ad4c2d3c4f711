import { z } from 'zod'
import { scoreSchema } from '@/core/score/score'
import { saveSchema } from '@/core/version'
import { idFrom, readBody, route } from '@/server/http'
import { findWorkout, saveScore } from '@/server/workouts'

const bodySchema = z.object({ score: scoreSchema, ...saveSchema.shape })

export const GET = route<{ id: string }>(async (_request, { id }) => {
  const { score, version } = await findWorkout(idFrom(id))
  return Response.json({ score, ...version })
})

export const PUT = route<{ id: string }>(async (request, { id }) => {
  const { score, ...save } = await readBody(request, bodySchema)
  return Response.json(await saveScore(idFrom(id), score, save))
})
