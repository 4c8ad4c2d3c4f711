import { idFrom, route } from '@/server/http'
import { findSession, sessionFacts } from '@/server/sessions'

export const GET = route<{ id: string }>(async (_request, { id }) =>
  Response.json(sessionFacts(await findSession(idFrom(id)))),
)
