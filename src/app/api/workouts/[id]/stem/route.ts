import { z } from 'zod'
import { Problem } from '@/core/problem'
import { SOUND_ENDINGS, type SoundEnding } from '@/engine/encodeSound'
import { STEMS, writeStem } from '@/engine/stems'
import { idFrom, route } from '@/server/http'
import { downloadName } from '@/server/packs'
import { renderingOf } from '@/server/rendering'
import { serveMade } from '@/server/serveMade'

const TYPES: Record<SoundEnding, string> = { wav: 'audio/wav', flac: 'audio/flac', mp3: 'audio/mpeg' }
const askSchema = z.object({ of: z.enum(STEMS), as: z.enum(SOUND_ENDINGS) })

/** The sound of the video alone, or one part of it: made when it is asked for, from what is planned and tied now. */
export const GET = route<{ id: string }>(async (request, { id }) => {
  const asked = askSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams))
  if (!asked.success)
    throw new Problem({
      ...{ code: 'bad-document', what: 'request', field: 'of, as' },
      reason: `of is one of ${STEMS.join(', ')}, as one of ${SOUND_ENDINGS.join(', ')}`,
    })
  const { of: stem, as: ending } = asked.data
  const { workout, job } = await renderingOf(idFrom(id))
  const download = downloadName(`${workout.score.title} ${stem}`, `.${ending}`)
  return serveMade(request, { type: TYPES[ending], download }, (out, folder) =>
    writeStem({ ...job, out }, { stem, ending, folder, signal: request.signal }),
  )
})
