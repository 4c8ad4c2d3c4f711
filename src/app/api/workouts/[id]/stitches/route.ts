import { z } from 'zod'
import { stitchSchema } from '@/core/align/ties'
import { MOST_TIES } from '@/core/limits'
import { saveSchema } from '@/core/version'
import { idFrom, readBody, route } from '@/server/http'
import { listStitches, saveStitches } from '@/server/stitches'

const bodySchema = z.object({
  stitches: z.array(stitchSchema).max(MOST_TIES),
  /** Of the reel in whose time they are. */
  reel: z.string(),
  ...saveSchema.shape,
})

export const dynamic = 'force-dynamic'

export const GET = route<{ id: string }>(async (_request, { id }) => {
  const { stitches, version } = await listStitches(idFrom(id))
  return Response.json({ stitches, ...version })
})

export const PUT = route<{ id: string }>(async (request, { id }) => {
  const { stitches, reel, ...version } = await readBody(request, bodySchema)
  return Response.json(await saveStitches(idFrom(id), { stitches, version }, reel))
})
