import { z } from 'zod'
import { emptyScore, scoreSchema } from '@/core/score/score'
import { expand } from '@/core/expand/expand'
import { readPlan } from '@/engine/plan'
import { readBody, route } from '@/server/http'
import { createWorkout } from '@/server/workouts'

const bodySchema = z.union([
  z.object({ title: z.string().trim().min(1).max(300) }),
  z.object({ plan: z.string().max(32 * 1024 * 1024), name: z.string().max(1000) }),
])

/** Makes a workout from a title, or from a plan file's text and name. */
export const POST = route(async (request) => {
  const body = await readBody(request, bodySchema)
  const score =
    'title' in body
      ? emptyScore(body.title)
      : scoreSchema.parse(readPlan(new TextEncoder().encode(body.plan), body.name))
  expand(score)
  return Response.json({ id: await createWorkout(score) }, { status: 201 })
})
