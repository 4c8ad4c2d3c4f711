// Step 022: where nothing follows a section, `replaced` leaves no rest after its last move any more. What was tied to
// the beginning of that rest is tied to the end of the move.
import type { TransactionSql } from 'postgres'
import { tryExpand } from '../../core/expand/expand'
import { newSection } from '../../core/score/formats'
import { scoreSchema, type Score } from '../../core/score/score'
import type { Segment } from '../../core/score/segment'

export async function tieLastMoves(tx: TransactionSql): Promise<void> {
  const ids = await tx<{ id: string }[]>`select distinct workout_id as id from stitches order by 1`
  for (const { id } of ids) {
    const [row] = await tx<{ score: unknown }[]>`select score from workouts where id = ${id}`
    const read = scoreSchema.safeParse(row?.score)
    const gone = read.success ? lastRestOf(read.data) : null
    if (!gone) continue
    await tx`delete from stitches where workout_id = ${id} and segment_id = ${gone.rest} and edge = 'end'`
    await tx`
      update stitches set segment_id = ${gone.move}, edge = 'end'
      where workout_id = ${id} and segment_id = ${gone.rest} and edge = 'start'`
  }
}

/** Ids of the rest that a score ended with, and of the move before it; null where it ends as it did. */
export function lastRestOf(score: Score): { rest: string; move: string } | null {
  const move = tryExpand(score).expansion?.segments.at(-1)
  const rest = segmentsOfBefore(score).at(-1)
  return move && rest && rest.id !== move.id ? { rest: rest.id, move: move.id } : null
}

/** The segments that a score had while a rest stayed after its last move. */
export function segmentsOfBefore(score: Score): Segment[] {
  const afterwards = { ...newSection('talk', 'afterwards', 'Afterwards'), key: 'after/wards' }
  return (tryExpand({ ...score, sections: [...score.sections, afterwards] }).expansion?.segments ?? []).slice(0, -1)
}
