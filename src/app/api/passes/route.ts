import { Problem } from '@/core/problem'
import { theDoor } from '@/server/access/door'
import { PASS_HEADER } from '@/server/access/entry'
import { listPasses } from '@/server/access/register'
import { route } from '@/server/http'

/** Who is in, and which of them asks. */
export const GET = route(async (request) => {
  if (!(await theDoor())) throw new Problem({ code: 'only-here' })
  return Response.json({ passes: await listPasses(), own: request.headers.get(PASS_HEADER) })
})
