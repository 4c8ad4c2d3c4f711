import { z } from 'zod'
import { stitchSchema } from '@/core/align/ties'
import { MOST_TIES } from '@/core/limits'
import { idFrom, readBody, route } from '@/server/http'
import { saveStitches } from '@/server/stitches'

const bodySchema = z.object({ revision: z.number().int().min(1), stitches: z.array(stitchSchema).max(MOST_TIES) })

export const PUT = route<{ id: string }>(async (request, { id }) =>
  Response.json({ revision: await saveStitches(idFrom(id), await readBody(request, bodySchema)) }),
)
