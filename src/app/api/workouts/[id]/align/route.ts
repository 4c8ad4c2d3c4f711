import { z } from 'zod'
import { tieKey } from '@/core/align/boundaries'
import { describeSync, LEAST_LIKENESS } from '@/core/align/sync'
import { tieSchema } from '@/core/align/ties'
import { EVIDENCE_KINDS } from '@/core/evidence'
import { expand } from '@/core/expand/expand'
import { MOST_TIES } from '@/core/limits'
import { Problem } from '@/core/problem'
import { filesInRow } from '@/core/filesInRow'
import { evidenceOf } from '@/server/footage'
import { fittingWorkout, type AlignAnswer } from '@/server/fitting'
import { heavy } from '@/server/heavy/heavy'
import { idFrom, readBody, route } from '@/server/http'
import { findLikes } from '@/server/likes'
import { lengthsOf, reelOf } from '@/server/reel'
import { recordFor } from '@/server/sessions'
import { findWorkout } from '@/server/workouts'

const bodySchema = z.object({
  tap: tieSchema.nullable(),
  /** Ties by hand, which may be newer than those that are saved. */
  hands: z.array(tieSchema).max(MOST_TIES),
  /** Kinds of evidence that are left out. */
  hushed: z.array(z.enum(EVIDENCE_KINDS)).max(EVIDENCE_KINDS.length).default([]),
})

/**
 * Matches what was heard in the footage to the score, after what sounds like a tap was looked for where there is one.
 * Proposes; the page decides what to keep and saves it.
 */
export const POST = route<{ id: string }>(async (request, { id }) => {
  const { tap, hands: tied, hushed } = await readBody(request, bodySchema)
  const { id: workoutId, score } = await findWorkout(idFrom(id))
  const { files, footageMs } = await reelOf(workoutId)
  if (!files.length) throw new Problem({ code: 'footage-not-ready' })
  const { segments } = expand(score)
  const kept = tied.filter((one) => !(tap && tieKey(one) === tieKey(tap)))
  if (tap) {
    const at = filesInRow(lengthsOf(files)).placeOf(tap.footageMs)
    const tapped = files[at.footage]
    if (tapped) await findLikes(tapped, segments, { ...tap, footageMs: at.footageMs }, request.signal)
  }
  const hands = tap ? [...kept, tap] : kept
  const heard = await Promise.all(
    files.map(async ({ id: footageId, facts }) => ({
      evidence: (await evidenceOf(footageId)).filter(({ kind }) => !hushed.includes(kind)),
      footageMs: facts.durationMs,
    })),
  )
  // A record of another plan altogether says nothing of this footage.
  const floor = hushed.includes('log') ? null : await recordFor(workoutId, segments)
  const task = { score, files: heard, hands, floor }
  const { found, likeness, doubtful, floor: logged } = await heavy('align', task, request.signal)
  // A hand says that this is the footage, and where.
  const otherOrder = hands.length ? null : await heavy('otherOrder', { score, files: heard, found }, request.signal)
  const isOther = !otherOrder && (likeness < LEAST_LIKENESS || doubtful)
  return Response.json({
    otherOrder,
    fits: isOther ? await fittingWorkout(workoutId, heard, request.signal) : null,
    ...describeSync(segments, found, footageMs),
    found,
    likeness,
    doubtful,
    floor: logged,
  } satisfies AlignAnswer)
})
