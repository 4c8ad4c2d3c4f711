import { tryExpand } from '@/core/expand/expand'
import { fitted } from '@/core/cut/fit'
import { filmSteps } from '@/core/cut/heard'
import { packSteps } from '@/core/sound/steps'
import { inFiles } from '@/core/cut/spans'
import { loudnessOnce } from '@/engine/loudness'
import { idFrom, route } from '@/server/http'
import { endToEnd, filmedOf, lengthsOf, recorded, reelOf } from '@/server/reel'
import { listStitches } from '@/server/stitches'
import { findWorkout } from '@/server/workouts'

/** The loudness of the footage through the cut, as `packSteps` has it. Nothing where it is silent. */
export const GET = route<{ id: string }>(async (request, { id }) => {
  const workout = await findWorkout(idFrom(id))
  const [reel, { stitches }] = await Promise.all([reelOf(workout.id), listStitches(workout.id)])
  const { expansion } = tryExpand(workout.score)
  const { cut } = fitted(await filmedOf(reel, expansion?.segments ?? [], stitches, workout.cut), workout.cut)
  const files = endToEnd(reel)
  const steps = filmSteps(
    inFiles(cut, lengthsOf(files)),
    await Promise.all(files.map(async (file) => loudnessOnce(await recorded(file), request.signal))),
  )
  return new Response(steps ? packSteps(steps) : new Uint8Array(), {
    headers: { 'content-type': 'application/octet-stream', 'cache-control': 'no-store' },
  })
})
