import { z } from 'zod'
import { floorEventSchema } from '@/core/floor/events'
import { DAY } from '@/core/units'
import { DEVICE_HEADER } from '@/server/access/entry'
import { idFrom, readBody, route } from '@/server/http'
import { tellFromDevice, tellSession } from '@/server/sessions'

const MOST_AT_ONCE = 5000

const tellingSchema = z.object({
  events: z.array(floorEventSchema).max(MOST_AT_ONCE),
  seenMs: z.number().int().min(0).max(DAY).nullable(),
  after: z.number().int().min(0),
})

/** Writes down what was told, and answers with what was told elsewhere since. */
export const POST = route<{ id: string }>(async (request, { id }) => {
  const tell = request.headers.has(DEVICE_HEADER) ? tellFromDevice : tellSession
  return Response.json(await tell(idFrom(id), await readBody(request, tellingSchema)))
})
