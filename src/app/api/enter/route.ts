import { z } from 'zod'
import { Problem } from '@/core/problem'
import { theDoor } from '@/server/access/door'
import { FROM_HEADER } from '@/server/access/entry'
import { readBody, route } from '@/server/http'

const bodySchema = z.object({ passphrase: z.string().max(1000) })

/** The passphrase, for a cookie that proves that it was known. */
export const POST = route(async (request) => {
  const door = await theDoor()
  if (!door) throw new Problem({ code: 'only-here' })
  const { passphrase } = await readBody(request, bodySchema)
  const waitMs = door.tries.waitFor(request.headers.get(FROM_HEADER) ?? '', performance.now())
  if (waitMs > 0) throw new Problem({ code: 'tries-too-many', waitMs })
  if (!(await door.passes.knows(passphrase))) throw new Problem({ code: 'passphrase-wrong' })
  return new Response(null, {
    status: 204,
    headers: { 'set-cookie': door.passes.cookieFor({ kind: 'owner' }, Date.now()) },
  })
})
