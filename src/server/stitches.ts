// Stitches in the database: read whole, saved whole, with a revision like the score's.
import type { Stitch } from '../core/align/alignBeeps'
import { Problem } from '../core/problem'
import { sql } from './db'

export type StoredStitch = Omit<Stitch, 'row'>

interface Row {
  segment_id: string
  edge: 'start' | 'end'
  footage_ms: number
  confidence: number
  evidence: ('beep' | 'hand')[]
}

/** In order of time. */
export async function listStitches(workoutId: string): Promise<StoredStitch[]> {
  const rows = await sql()<
    Row[]
  >`select * from stitches where workout_id = ${workoutId} order by footage_ms, segment_id`
  return rows.map((row) => ({
    segmentId: row.segment_id,
    edge: row.edge,
    footageMs: row.footage_ms,
    confidence: Math.round(row.confidence * 100) / 100,
    evidence: row.evidence,
  }))
}

/** @returns the new revision. @throws Problem `stale` when they were changed elsewhere in between. */
export async function saveStitches(
  workoutId: string,
  stitches: readonly StoredStitch[],
  revision: number,
): Promise<number> {
  return sql().begin(async (tx) => {
    const [row] = await tx<{ stitch_revision: number }[]>`
      update workouts set stitch_revision = stitch_revision + 1, updated_at = now()
      where id = ${workoutId} and stitch_revision = ${revision} and removed_at is null returning stitch_revision`
    if (!row) throw new Problem('stale', 'The stitches were changed in another tab since you opened them.')
    await tx`delete from stitches where workout_id = ${workoutId}`
    if (stitches.length) {
      await tx`insert into stitches ${tx(
        stitches.map((stitch) => ({
          workout_id: workoutId,
          segment_id: stitch.segmentId,
          edge: stitch.edge,
          footage_ms: stitch.footageMs,
          confidence: stitch.confidence,
          evidence: stitch.evidence,
        })),
      )}`
    }
    return row.stitch_revision
  })
}
