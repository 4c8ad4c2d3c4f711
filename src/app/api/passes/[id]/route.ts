import { z } from 'zod'
import { Problem } from '@/core/problem'
import { PASS_HEADER } from '@/server/access/entry'
import { NO_COOKIE } from '@/server/access/passes'
import { endPass, MOST_NAME, renamePass } from '@/server/access/register'
import { idFrom, readBody, route } from '@/server/http'

const nameSchema = z.object({ name: z.string().trim().min(1).max(MOST_NAME) })

export const PATCH = route<{ id: string }>(async (request, { id }) => {
  const { name } = await readBody(request, nameSchema)
  if (!(await renamePass(idFrom(id), name))) throw new Problem({ code: 'not-found', what: 'device' })
  return new Response(null, { status: 204 })
})

/** Ends a pass, from its next request on. One's own: logs out. */
export const DELETE = route<{ id: string }>(async (request, { id }) => {
  if (!(await endPass(idFrom(id)))) throw new Problem({ code: 'not-found', what: 'device' })
  const isOwn = request.headers.get(PASS_HEADER) === id
  return new Response(null, { status: 204, headers: isOwn ? { 'set-cookie': NO_COOKIE } : {} })
})
