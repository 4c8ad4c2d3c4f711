import { z } from 'zod'
import { tieKey } from '@/core/align/boundaries'
import { DAY } from '@/core/units'
import { idFrom, readBody, route } from '@/server/http'
import { saveStitches } from '@/server/stitches'

const stitchSchema = z.object({
  segmentId: z.string().min(1).max(400),
  edge: z.enum(['start', 'end']),
  footageMs: z.number().int().min(0).max(DAY),
  confidence: z.number().min(0).max(1),
  evidence: z.array(z.enum(['beep', 'hand'])).max(4),
})
const bodySchema = z.object({
  revision: z.number().int().min(1),
  stitches: z
    .array(stitchSchema)
    .max(50_001)
    .refine((all) => new Set(all.map((one) => tieKey(one))).size === all.length, 'a boundary is stitched twice'),
})

export const PUT = route<{ id: string }>(async (request, { id }) => {
  const { stitches, revision } = await readBody(request, bodySchema)
  return Response.json({ revision: await saveStitches(idFrom(id), stitches, revision) })
})
