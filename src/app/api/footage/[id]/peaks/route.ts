import { Problem } from '@/core/problem'
import { findFootage } from '@/server/footage'
import { idFrom, route } from '@/server/http'
import { serveFile } from '@/server/serveFile'
import { storedFile } from '@/server/store'

export const GET = route<{ id: string }>(async (request, { id }) => {
  const { peaksHash } = await findFootage(idFrom(id))
  if (!peaksHash) throw new Problem({ code: 'no-sound' })
  return serveFile(request, await storedFile(peaksHash), { type: 'application/octet-stream' })
})
