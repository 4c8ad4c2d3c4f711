import { z } from 'zod'
import { emptyScore } from '@/core/score/score'
import { heavy } from '@/server/heavy/heavy'
import { readBody, route } from '@/server/http'
import { copyWorkout, createWorkout } from '@/server/workouts'

const bodySchema = z.union([
  z.object({ title: z.string().trim().min(1).max(300) }),
  z.object({ copyOf: z.uuid() }),
  z.object({ plan: z.string().max(32 * 1024 * 1024), name: z.string().max(1000) }),
])

/** Makes a workout from a title, as a copy of another, or from a plan file's text and name. */
export const POST = route(async (request) => {
  const body = await readBody(request, bodySchema)
  if ('copyOf' in body) return Response.json({ id: await copyWorkout(body.copyOf) }, { status: 201 })
  const score =
    'title' in body
      ? emptyScore(body.title)
      : await heavy('readPlan', { text: body.plan, name: body.name }, request.signal)
  return Response.json({ id: await createWorkout(score) }, { status: 201 })
})
