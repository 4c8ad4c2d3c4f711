import { z } from 'zod'
import { SHAPE_NAMES, type FramingKey } from '@/core/cut/framing'
import { followOnce } from '@/engine/follow'
import { idFrom, readBody, route } from '@/server/http'
import { endToEnd, recorded, reelOf } from '@/server/reel'

const askSchema = z.object({ shape: z.enum(SHAPE_NAMES) })

/** Keys that follow whoever moves, in every file of the reel. They are only proposed: the page saves them. */
export const POST = route<{ id: string }>(async (request, { id }) => {
  const { shape } = await readBody(request, askSchema)
  const keys: FramingKey[] = []
  for (const file of endToEnd(await reelOf(idFrom(id)))) {
    const aims = await followOnce(await recorded(file), shape, request.signal)
    keys.push(...aims.map((aim) => ({ footage: file.id, ...aim })))
  }
  return Response.json({ keys })
})
