import { writeWorkoutFile } from '@/core/write/workoutFile'
import { idFrom, route } from '@/server/http'
import { downloadName } from '@/server/packs'
import { findWorkout } from '@/server/workouts'

/** The workout file, for keeping or for the headless command. */
export const GET = route<{ id: string }>(async (_request, { id }) => {
  const { score } = await findWorkout(idFrom(id))
  return new Response(writeWorkoutFile(score), {
    headers: {
      'content-type': 'application/json; charset=utf-8',
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(downloadName(score.title, '.jivet.json'))}`,
    },
  })
})
