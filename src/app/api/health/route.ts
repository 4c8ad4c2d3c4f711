import { sql } from '@/server/db'
import { route } from '@/server/http'

export const dynamic = 'force-dynamic'

export const GET = route(async () => {
  await sql()`select 1`
  return Response.json({ ready: true })
})
