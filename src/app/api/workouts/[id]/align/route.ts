import { z } from 'zod'
import { tieKey } from '@/core/align/boundaries'
import type { FloorAnswer } from '@/core/align/logged'
import { describeSync, type Aligned } from '@/core/align/sync'
import { tieSchema } from '@/core/align/ties'
import { EVIDENCE_KINDS } from '@/core/evidence'
import { expand } from '@/core/expand/expand'
import { Problem } from '@/core/problem'
import { currentFootage, evidenceOf } from '@/server/footage'
import { heavy } from '@/server/heavy/heavy'
import { idFrom, readBody, route } from '@/server/http'
import { findLikes } from '@/server/likes'
import { listStitches } from '@/server/stitches'
import { recordFor } from '@/server/sessions'
import { findWorkout } from '@/server/workouts'

const bodySchema = z.object({
  tap: tieSchema.nullable(),
  /** Kinds of evidence that are left out. */
  hushed: z.array(z.enum(EVIDENCE_KINDS)).max(EVIDENCE_KINDS.length).default([]),
})

/**
 * Matches what was heard in the footage to the score, after what sounds like a tap was looked for where there is one.
 * Proposes; the page decides what to keep and saves it.
 */
export const POST = route<{ id: string }>(async (request, { id }) => {
  const { tap, hushed } = await readBody(request, bodySchema)
  const { id: workoutId, score } = await findWorkout(idFrom(id))
  const footage = await currentFootage(workoutId)
  if (!footage?.facts || footage.state !== 'ready') throw new Problem({ code: 'footage-not-ready' })
  const { durationMs } = footage.facts
  const { segments } = expand(score)
  const { stitches } = await listStitches(footage.id)
  const kept = stitches.filter((one) => one.origin === 'hand' && !(tap && tieKey(one) === tieKey(tap)))
  if (tap) await findLikes(footage, segments, tap, request.signal)
  const hands = tap ? [...kept, tap] : kept
  const evidence = (await evidenceOf(footage.id)).filter(({ kind }) => !hushed.includes(kind))
  // A record of another plan altogether says nothing of this footage.
  const floor = hushed.includes('log') ? null : await recordFor(workoutId, segments)
  const task = { score, evidence, footageMs: durationMs, hands, floor }
  const { found, likeness, doubtful, floor: logged } = await heavy('align', task, request.signal)
  return Response.json({
    ...describeSync(segments, found, durationMs),
    found,
    likeness,
    doubtful,
    floor: logged,
  } satisfies Aligned & FloorAnswer)
})
