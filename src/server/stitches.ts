// Stitches in the database: those of one footage, read whole, saved whole, with a revision like the score's.
import { tieProblem, type Stitch } from '../core/align/ties'
import { expand } from '../core/expand/expand'
import { Problem } from '../core/problem'
import type { Version } from '../core/version'
import { sql } from './db'
import { findFootage } from './footage'
import { findWorkout } from './workouts'

export interface Stitches {
  stitches: Stitch[]
  version: Version
}

interface Row {
  segment_id: string
  edge: Stitch['edge']
  footage_ms: number
  origin: Stitch['origin']
  confidence: number
  evidence: Stitch['evidence']
  alternatives: NonNullable<Stitch['alternatives']>
}

/** In order of time. */
export async function listStitches(footageId: string): Promise<Stitches> {
  const [owner] = await sql()<
    { stitch_revision: number; stitch_key: string | null }[]
  >`select stitch_revision, stitch_key from footage where id = ${footageId}`
  if (!owner) throw new Problem({ code: 'not-found', what: 'footage' })
  const rows = await sql()<Row[]>`
    select segment_id, edge, footage_ms, origin, confidence, evidence, alternatives from stitches where footage_id = ${footageId}
    order by footage_ms, segment_id`
  const stitches = rows.map((row) => ({
    segmentId: row.segment_id,
    edge: row.edge,
    footageMs: row.footage_ms,
    origin: row.origin,
    confidence: Math.round(row.confidence * 100) / 100,
    evidence: row.evidence,
    ...(row.alternatives.length ? { alternatives: row.alternatives } : {}),
  }))
  return { stitches, version: { revision: owner.stitch_revision, key: owner.stitch_key } }
}

/**
 * Saves the ties of a footage over the revision that they were made from, under a key that the page made up.
 * @returns the new version.
 * @throws Problem `stale`, with the version there is, when they were changed elsewhere in between; `tie-crosses`,
 * `tie-outside` or `tie-twice` where they cannot hold together.
 */
export async function saveStitches(footageId: string, { stitches, version }: Stitches): Promise<Version> {
  const footage = await findFootage(footageId)
  if (!footage.facts) throw new Problem({ code: 'footage-not-ready' })
  const { segments } = expand((await findWorkout(footage.workoutId)).score)
  const wrong = tieProblem(segments, stitches, footage.facts.durationMs)
  if (wrong) throw new Problem(wrong)
  return sql().begin(async (tx) => {
    const [row] = await tx<{ revision: number; key: string | null }[]>`
      select stitch_revision as revision, stitch_key as key from footage where id = ${footageId} for update`
    if (!row) throw new Problem({ code: 'not-found', what: 'footage' })
    if (row.revision !== version.revision) throw new Problem({ code: 'stale', what: 'ties', now: row })
    const saved = { revision: version.revision + 1, key: version.key }
    await tx`
      update footage set stitch_revision = ${saved.revision}, stitch_key = ${saved.key} where id = ${footageId}`
    await tx`update workouts set updated_at = now() where id = ${footage.workoutId}`
    await tx`delete from stitches where footage_id = ${footageId}`
    // One document and not a row of parameters each: PostgreSQL takes 65,535 of those at most.
    await tx`
      insert into stitches (workout_id, footage_id, segment_id, edge, footage_ms, origin, confidence, evidence, alternatives)
      select ${footage.workoutId}, ${footageId}, "segmentId", edge, "footageMs", origin, confidence,
        array(select jsonb_array_elements_text(evidence)), coalesce(alternatives, '[]')
      from jsonb_to_recordset(${tx.json(stitches as never)}) as one
        ("segmentId" text, edge text, "footageMs" integer, origin text, confidence real, evidence jsonb,
          alternatives jsonb)`
    return saved
  })
}
