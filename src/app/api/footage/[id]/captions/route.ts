import { z } from 'zod'
import { ofKind } from '@/core/evidence'
import { findFootage, saveCaptions } from '@/server/footage'
import { heavy } from '@/server/heavy/heavy'
import { idFrom, readBody, route } from '@/server/http'

const bodySchema = z.object({ text: z.string() })

/** Reads captions (WebVTT or SRT) that came with a footage; their calls take the place of those of earlier ones. */
export const PUT = route<{ id: string }>(async (request, { id }) => {
  const { text } = await readBody(request, bodySchema)
  const footage = await findFootage(idFrom(id))
  const calls = await heavy('captions', { text }, request.signal)
  const within = calls.filter(({ atMs }) => atMs < (footage.facts?.durationMs ?? 0))
  await saveCaptions(footage.id, within)
  return Response.json({ calls: ofKind(within, 'caption').length, numbers: ofKind(within, 'said').length })
})
