import { evidenceOf, findFootage } from '@/server/footage'
import { idFrom, route } from '@/server/http'

/** All that was heard in a footage, in order of time. */
export const GET = route<{ id: string }>(async (_, { id }) => {
  const footage = await findFootage(idFrom(id))
  return Response.json(await evidenceOf(footage.id))
})
