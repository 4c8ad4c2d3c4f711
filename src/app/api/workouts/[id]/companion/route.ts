import { sessionOf } from '@/companion/session'
import { expand } from '@/core/expand/expand'
import { companionPage } from '@/engine/companionPage'
import { textAttachment } from '@/server/attachment'
import { idFrom, route } from '@/server/http'
import { downloadName } from '@/server/packs'
import { findWorkout } from '@/server/workouts'

/** The session as a page that runs by itself, as a download: it is no page of ours. */
export const GET = route<{ id: string }>(async (_request, { id }) => {
  const { score, cues } = await findWorkout(idFrom(id))
  const page = await companionPage(sessionOf(score, expand(score).segments, cues))
  return textAttachment(page, 'text/html', downloadName(score.title, '.html'))
})
