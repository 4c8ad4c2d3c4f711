// Which other workout a footage is of, where it does not sound like the one that it was added to.
import type { FloorAnswer } from '../core/align/logged'
import type { OtherOrder } from '../core/align/otherOrder'
import type { Aligned } from '../core/align/sync'
import { isSure } from '../core/align/ties'
import { boundariesOf } from '../core/align/boundaries'
import { tryExpand } from '../core/expand/expand'
import { scoreSchema } from '../core/score/score'
import { sql } from './db'
import { heavy } from './heavy/heavy'
import type { HeavyInput } from './heavy/tasks'

/** What is answered to who asks for the changes: what fits better, too. */
export type AlignAnswer = Aligned & FloorAnswer & { fits: Fitting | null; otherOrder: OtherOrder | null }
export interface Fitting {
  id: string
  title: string
}

/** The newest are held against it; older ones are rarely filmed now. */
const MOST_HELD_AGAINST = 12
/** So much of a workout has to be surely there. */
const LEAST_SURE = 0.6

export async function fittingWorkout(
  workoutId: string,
  files: HeavyInput<'align'>['files'],
  signal: AbortSignal,
): Promise<Fitting | null> {
  const rows = await sql()<{ id: string; title: string; score: unknown }[]>`
    select id, title, score from workouts
    where removed_at is null and plan_state = 'planned' and id <> ${workoutId}
    order by updated_at desc limit ${MOST_HELD_AGAINST}`
  let best: { fitting: Fitting; share: number } | null = null
  for (const { id, title, score: stored } of rows) {
    const score = scoreSchema.safeParse(stored).data
    const segments = score && tryExpand(score).expansion?.segments
    if (!score || !segments) continue
    const { found, doubtful } = await heavy('align', { score, files, hands: [], floor: null }, signal)
    const audible = boundariesOf(segments).filter((boundary) => boundary.audible).length
    const share = found.filter(isSure).length / Math.max(1, audible)
    if (!doubtful && share >= LEAST_SURE && share > (best?.share ?? 0)) best = { fitting: { id, title }, share }
  }
  return best?.fitting ?? null
}
