import { writeWorkoutFile } from '@/core/write/workoutFile'
import { textAttachment } from '@/server/attachment'
import { idFrom, route } from '@/server/http'
import { downloadName } from '@/server/packs'
import { findWorkout } from '@/server/workouts'

/** The workout file, for keeping or for the headless command. */
export const GET = route<{ id: string }>(async (_request, { id }) => {
  const { score } = await findWorkout(idFrom(id))
  return textAttachment(writeWorkoutFile(score), 'application/json', downloadName(score.title, '.jivet.json'))
})
