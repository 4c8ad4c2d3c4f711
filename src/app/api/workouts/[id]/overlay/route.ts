import { z } from 'zod'
import { OVERLAY_ENDINGS, writeOverlay, type OverlayEnding } from '@/engine/overlayAlone'
import { idFrom, readQuery, route } from '@/server/http'
import { downloadName } from '@/server/packs'
import { renderingOf } from '@/server/rendering'
import { serveMade } from '@/server/serveMade'

const TYPES: Record<OverlayEnding, string> = { mov: 'video/quicktime', webm: 'video/webm' }
const askSchema = z.object({ as: z.enum(OVERLAY_ENDINGS) })

/** The overlay alone, as a movie that is seen through: made when it is asked for, from what is planned and tied now. */
export const GET = route<{ id: string }>(async (request, { id }) => {
  const { as: ending } = readQuery(request, askSchema)
  const { workout, job } = await renderingOf(idFrom(id))
  const download = downloadName(`${workout.score.title} overlay`, `.${ending}`)
  return serveMade(request, { type: TYPES[ending], download }, (out) =>
    writeOverlay(job, ending, { out, signal: request.signal }),
  )
})
