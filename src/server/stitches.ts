// Stitches in the database: each belongs to the file it lies in. Those of a reel are read whole and saved whole, in the
// time of the whole, with a revision like the score's.
import { tiesOfFiles, tiesOfReel } from '../core/align/reel'
import { holdingTies, tieProblem, type Stitch } from '../core/align/ties'
import { expand, tryExpand } from '../core/expand/expand'
import { filesInRow } from '../core/filesInRow'
import { Problem } from '../core/problem'
import { isKnown, isMadeFrom, type Save, type Version } from '../core/version'
import { inTransaction, sql } from './db'
import { tellChange, type Db } from './jobs'
import { keyOf, lengthsOf, reelOf } from './reel'
import { findWorkout } from './workouts'

export interface Stitches {
  stitches: Stitch[]
  version: Version
}

interface Row {
  footage_id: string
  segment_id: string
  edge: Stitch['edge']
  footage_ms: number
  origin: Stitch['origin']
  confidence: number
  evidence: Stitch['evidence']
  alternatives: NonNullable<Stitch['alternatives']>
  done: boolean
}

/** Ties of a workout's reel, in order of time. @throws Problem `not-found`. */
export async function listStitches(workoutId: string): Promise<Stitches> {
  const [owner] = await sql()<Version[]>`
    select stitch_revision as revision, stitch_key as key from workouts where id = ${workoutId}`
  if (!owner) throw new Problem({ code: 'not-found', what: 'workout' })
  const { files, footageMs } = await reelOf(workoutId)
  const byFile = await Promise.all(files.map(({ id }) => stitchesOf(id)))
  const all = tiesOfReel(byFile, filesInRow(lengthsOf(files)))
  return { stitches: files.length > 1 ? await holding(workoutId, all, footageMs) : all, version: { ...owner } }
}

/** Files that were tied apart may both have a change: what holds together is kept. */
async function holding(workoutId: string, all: Stitch[], footageMs: number): Promise<Stitch[]> {
  const segments = tryExpand((await findWorkout(workoutId)).score).expansion?.segments ?? []
  const planned = new Set(segments.map(({ id }) => id))
  const held = new Set(holdingTies(segments, all, footageMs).map(({ tie }) => tie))
  return all.filter((tie) => held.has(tie) || !planned.has(tie.segmentId))
}

/** Ties of one file in its own time, in order of time. */
export async function stitchesOf(footageId: string, db: Db = sql()): Promise<Stitch[]> {
  const rows = await db<Row[]>`
    select segment_id, edge, footage_ms, origin, confidence, evidence, alternatives, done from stitches
    where footage_id = ${footageId} order by footage_ms, segment_id`
  return rows.map((row) => ({
    segmentId: row.segment_id,
    edge: row.edge,
    footageMs: row.footage_ms,
    origin: row.origin,
    confidence: Math.round(row.confidence * 100) / 100,
    evidence: row.evidence,
    ...(row.alternatives.length ? { alternatives: row.alternatives } : {}),
    ...(row.done ? {} : { done: false as const }),
  }))
}

/**
 * Saves the ties of a reel over the revision that they were made from, under a key that the page made up.
 * @param reelKey of the reel in whose time they are.
 * @returns the new version.
 * @throws Problem `stale`, with the version there is, when they were changed elsewhere in between; `tie-crosses`,
 * `tie-outside` or `tie-twice` where they cannot hold together; `reel-changed` where the files are others meanwhile.
 */
export async function saveStitches(
  workoutId: string,
  { stitches, version: save }: { stitches: Stitch[]; version: Save },
  reelKey: string,
): Promise<Version> {
  const { segments } = expand((await findWorkout(workoutId)).score)
  return inTransaction(async (tx) => {
    const [row] = await tx<Version[]>`
      select stitch_revision as revision, stitch_key as key from workouts where id = ${workoutId} for update`
    if (!row) throw new Problem({ code: 'not-found', what: 'workout' })
    if (isKnown(row, save)) return { ...row }
    if (!isMadeFrom(row, save)) throw new Problem({ code: 'stale', what: 'ties', now: { ...row } })
    const reel = await reelOf(workoutId, tx)
    const { files, footageMs } = reel
    if (!files.length) throw new Problem({ code: 'footage-not-ready' })
    if (keyOf(reel) !== reelKey) throw new Problem({ code: 'reel-changed' })
    const wrong = tieProblem(segments, stitches, footageMs)
    if (wrong) throw new Problem(wrong)
    const saved = { revision: row.revision + 1, key: save.key }
    await tx`
      update workouts set stitch_revision = ${saved.revision}, stitch_key = ${saved.key}, updated_at = now()
      where id = ${workoutId}`
    const byFile = tiesOfFiles(stitches, lengthsOf(files))
    for (const [at, { id }] of files.entries()) {
      await tx`delete from stitches where footage_id = ${id}`
      // One document and not a row of parameters each: PostgreSQL takes 65,535 of those at most.
      await tx`
        insert into stitches
          (workout_id, footage_id, segment_id, edge, footage_ms, origin, confidence, evidence, alternatives, done)
        select ${workoutId}, ${id}, "segmentId", edge, "footageMs", origin, confidence,
          array(select jsonb_array_elements_text(evidence)), coalesce(alternatives, '[]'), coalesce(done, true)
        from jsonb_to_recordset(${tx.json((byFile[at] ?? []) as never)}) as one
          ("segmentId" text, edge text, "footageMs" integer, origin text, confidence real, evidence jsonb,
            alternatives jsonb, done boolean)`
    }
    await tellChange(workoutId, tx)
    return saved
  })
}
