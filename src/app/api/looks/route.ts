import { namedLookSchema } from '@/core/look/looks/family'
import { forgetLook, keepLook, namedLooks } from '@/server/looks'
import { readBody, route } from '@/server/http'

export const dynamic = 'force-dynamic'

/** Looks that were given a name. */
export const GET = route(async () => Response.json({ looks: await namedLooks() }))

export const PUT = route(async (request) => {
  const { name, look } = await readBody(request, namedLookSchema)
  await keepLook(name, look)
  return Response.json({ looks: await namedLooks() })
})

export const DELETE = route(async (request) => {
  const name = new URL(request.url).searchParams.get('name') ?? ''
  await forgetLook(name)
  return Response.json({ looks: await namedLooks() })
})
