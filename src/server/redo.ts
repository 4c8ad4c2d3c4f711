// What a render of a workout would have to make, as it is now.
import type { Ms } from '../core/units'
import type { Purpose } from '../core/render/purpose'
import { sum } from '../core/sum'
import { chunkKeys, picturePlan } from '../engine/picturePlan'
import { encoderFor } from '../engine/hardware'
import { sql } from './db'
import { renderingOf } from './rendering'
import { chunkStore } from './store'

export interface Redo {
  chunks: number
  /** How many of them are not there yet. */
  missing: number
  /** By how long the last renders took; null where there was none. */
  likelyMs: Ms | null
}

/** @throws Problem as `renderingOf` does, or `cut-empty`. */
export async function redoOf(workoutId: string, purpose: Purpose): Promise<Redo> {
  const rendering = await renderingOf(workoutId)
  const job = { ...rendering.job, purpose, encoder: await encoderFor(purpose) }
  const plan = picturePlan(job)
  const keys = await chunkKeys(job, plan)
  const store = chunkStore()
  const there = await Promise.all(keys.map((key) => store.has(key)))
  const missing = plan.chunks.filter((_, at) => !there[at])
  const speed = await speedSoFar(purpose)
  return {
    chunks: plan.chunks.length,
    missing: missing.length,
    likelyMs: speed && Math.round(sum(missing.map(({ lengthMs }) => lengthMs)) * speed.perMs + speed.otherMs),
  }
}

/** A render of so little tells how long all but the encoding takes. */
const LITTLE_MS: Ms = 5000
const USUAL_OTHER_MS: Ms = 3000

/** How long a millisecond of video took in the last render that made most of one, and all that is not encoding. */
async function speedSoFar(purpose: Purpose): Promise<{ perMs: number; otherMs: Ms } | null> {
  const rows = await sql()<{ made_ms: number; took_ms: number }[]>`
    select (rendered->>'madeMs')::float8 as made_ms, (rendered->>'tookMs')::float8 as took_ms
    from packs where rendered is not null and purpose = ${purpose} order by created_at desc limit 20`
  const otherMs = rows.find((row) => row.made_ms < LITTLE_MS)?.took_ms ?? USUAL_OTHER_MS
  const long = rows.find((row) => row.made_ms >= LITTLE_MS)
  return long ? { perMs: Math.max(0, long.took_ms - otherMs) / long.made_ms, otherMs } : null
}
