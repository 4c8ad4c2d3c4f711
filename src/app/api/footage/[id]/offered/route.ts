import { movedInto } from '@/core/align/reel'
import { Problem } from '@/core/problem'
import { findFootage } from '@/server/footage'
import { idFrom, route } from '@/server/http'
import { stitchesOf } from '@/server/stitches'

/** Ties of the footage that this one shares its sound with, where they lie in this one. */
export const GET = route<{ id: string }>(async (_, { id }) => {
  const { beside, facts } = await findFootage(idFrom(id))
  if (!beside || !facts) throw new Problem({ code: 'not-together' })
  return Response.json(movedInto(await stitchesOf(beside.id), beside, facts.durationMs))
})
