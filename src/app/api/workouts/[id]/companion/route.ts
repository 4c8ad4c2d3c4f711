import { expand } from '@/core/expand/expand'
import { companionPage } from '@/engine/companionPage'
import { textAttachment } from '@/server/attachment'
import { idFrom, route } from '@/server/http'
import { downloadName } from '@/server/packs'
import { findWorkout } from '@/server/workouts'

/** The session as a page that runs by itself, as a download: it is no page of ours. */
export const GET = route<{ id: string }>(async (_request, { id }) => {
  const { score, cues } = await findWorkout(idFrom(id))
  const { title, series } = score
  const page = await companionPage({
    ...{ title, cues, next: series.next, segments: expand(score).segments },
    viewing: { count: score.count, countOf: score.countOf, moves: score.moves },
  })
  return textAttachment(page, 'text/html', downloadName(title, '.html'))
})
