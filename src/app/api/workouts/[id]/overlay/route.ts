import { writeOverlay } from '@/engine/overlayAlone'
import { idFrom, route } from '@/server/http'
import { downloadName } from '@/server/packs'
import { renderingOf } from '@/server/rendering'
import { serveMade } from '@/server/serveMade'

/** The overlay alone, as a movie that is seen through: made when it is asked for, from what is planned and tied now. */
export const GET = route<{ id: string }>(async (request, { id }) => {
  const { workout, job } = await renderingOf(idFrom(id))
  const download = downloadName(`${workout.score.title} overlay`, '.mov')
  return serveMade(request, { type: 'video/quicktime', download }, (out, folder) =>
    writeOverlay(job, 'mov', { out, folder, signal: request.signal }),
  )
})
