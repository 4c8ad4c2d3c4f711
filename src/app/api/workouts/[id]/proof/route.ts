import { proofSchema } from '@/core/proof/proof'
import { idFrom, readBody, route } from '@/server/http'
import { saveProof } from '@/server/workouts'

/** What was checked in Watch, and noted. */
export const PUT = route<{ id: string }>(async (request, { id }) => {
  const proof = await readBody(request, proofSchema)
  await saveProof(idFrom(id), proof)
  return Response.json(proof)
})
