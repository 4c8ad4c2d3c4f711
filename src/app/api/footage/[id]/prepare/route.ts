import { prepareAgain } from '@/server/footage'
import { idFrom, route } from '@/server/http'

/** Takes up once more what failed to be prepared. */
export const POST = route<{ id: string }>(async (_request, { id }) => {
  await prepareAgain(idFrom(id))
  return new Response(null, { status: 202 })
})
