import { z } from 'zod'
import { CHIRP_VOICES } from '@/core/sound/chirp'
import { idFrom, readBody, route } from '@/server/http'
import { openSession } from '@/server/sessions'

/** A rehearsal may run faster than the wall's clock, up to so many times. */
const MOST_SPEED = 20

const wishesSchema = z
  .object({ rehearsal: z.boolean(), speed: z.number().min(1).max(MOST_SPEED), chirps: z.enum(CHIRP_VOICES).nullable() })
  .refine(({ rehearsal, speed }) => rehearsal || speed === 1, 'only a rehearsal runs faster than it is filmed')

/** Opens a session on the floor of a workout. */
export const POST = route<{ id: string }>(async (request, { id }) => {
  const wishes = await readBody(request, wishesSchema)
  return Response.json({ id: await openSession(idFrom(id), wishes) }, { status: 201 })
})
