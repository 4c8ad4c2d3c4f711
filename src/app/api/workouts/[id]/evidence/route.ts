import { idFrom, route } from '@/server/http'
import { evidenceOfReel, reelOf } from '@/server/reel'

/** All that was heard in the files of a workout, in the time of the whole. */
export const GET = route<{ id: string }>(async (_, { id }) =>
  Response.json(await evidenceOfReel(await reelOf(idFrom(id)))),
)
