import { textAttachment } from '@/server/attachment'
import { idFrom, route } from '@/server/http'
import { downloadName } from '@/server/packs'
import { storedScore } from '@/server/workouts'

/** The score as it is stored, whether or not it can be read: the way out for a workout that is damaged. */
export const GET = route<{ id: string }>(async (_request, { id }) => {
  const { title, score } = await storedScore(idFrom(id))
  const file = `${JSON.stringify({ format: 'jivet-workout', version: 1, score }, null, 2)}\n`
  return textAttachment(file, 'application/json', downloadName(title, '.jivet.json'))
})
