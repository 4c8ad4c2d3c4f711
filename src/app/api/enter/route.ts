import { z } from 'zod'
import { Problem } from '@/core/problem'
import { theDoor } from '@/server/access/door'
import { FROM_HEADER } from '@/server/access/entry'
import { beginPass, deviceName } from '@/server/access/register'
import { readBody, route } from '@/server/http'

const bodySchema = z.object({ passphrase: z.string().max(1000) })
/** Anybody may send it: no more is read. */
const MOST_BYTES = 4096

/** The passphrase, for a cookie that proves that it was known. */
export const POST = route(async (request) => {
  const door = await theDoor()
  if (!door) throw new Problem({ code: 'only-here' })
  const from = request.headers.get(FROM_HEADER) ?? ''
  const waitMs = door.tries.waitFor(from, performance.now())
  if (waitMs > 0) throw new Problem({ code: 'tries-too-many', waitMs })
  const { passphrase } = await readBody(request, bodySchema, MOST_BYTES)
  if (!(await door.passes.knows(passphrase))) throw new Problem({ code: 'passphrase-wrong' })
  door.tries.know(from)
  const pass = await beginPass(null, deviceName(request.headers.get('user-agent') ?? ''))
  return new Response(null, { status: 204, headers: { 'set-cookie': door.passes.cookieFor(pass, Date.now()) } })
})
