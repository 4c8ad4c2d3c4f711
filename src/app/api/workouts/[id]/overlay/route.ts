import { z } from 'zod'
import { Problem } from '@/core/problem'
import { OVERLAY_ENDINGS, writeOverlay, type OverlayEnding } from '@/engine/overlayAlone'
import { idFrom, route } from '@/server/http'
import { downloadName } from '@/server/packs'
import { renderingOf } from '@/server/rendering'
import { serveMade } from '@/server/serveMade'

const TYPES: Record<OverlayEnding, string> = { mov: 'video/quicktime', webm: 'video/webm' }
const endingSchema = z.enum(OVERLAY_ENDINGS)

/** The overlay alone, as a movie that is seen through: made when it is asked for, from what is planned and tied now. */
export const GET = route<{ id: string }>(async (request, { id }) => {
  const asked = endingSchema.safeParse(new URL(request.url).searchParams.get('as'))
  if (!asked.success)
    throw new Problem({
      ...{ code: 'bad-document', what: 'request', field: 'as' },
      reason: `as is one of ${OVERLAY_ENDINGS.join(', ')}`,
    })
  const ending = asked.data
  const { workout, job } = await renderingOf(idFrom(id))
  const download = downloadName(`${workout.score.title} overlay`, `.${ending}`)
  return serveMade(request, { type: TYPES[ending], download }, (out) =>
    writeOverlay(job, ending, { out, signal: request.signal }),
  )
})
