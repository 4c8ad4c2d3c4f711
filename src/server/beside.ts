// Which footage of the workout shares its sound with another: a second camera in the room, or the same film once more.
import { readFile } from 'node:fs/promises'
import { ofKind, type Evidence } from '../core/evidence'
import { unpackPeaks, type PeakLevel } from '../core/hear/peaks'
import { together, type Recording } from '../core/hear/together'
import { sql } from './db'
import { evidenceOf, footageWhere, type Footage } from './footage'
import { storedFile } from './store'

/** What was put aside longer ago is not gone through. */
const MOST_ASIDE = 5

interface Gathered {
  evidence: readonly Evidence[]
  peaks: readonly PeakLevel[] | null
}

const recordingOf = ({ evidence, peaks }: Gathered): Recording => ({
  peaks: peaks ?? [],
  tonesMs: ofKind(evidence, 'beep').map(({ atMs }) => atMs),
})

/**
 * Holds what was heard in a footage against the files of its reel, then against what was put aside with ties.
 * @returns where it lies in the first that it shares its sound with.
 */
export async function findBeside(
  { id, workoutId, replaces }: Pick<Footage, 'id' | 'workoutId' | 'replaces'>,
  gathered: Gathered,
): Promise<Footage['beside']> {
  if (!gathered.peaks) return null
  const known = await footageWhere(sql()`
    where workout_id = ${workoutId} and id <> ${id} and state = 'ready' and peaks_hash is not null and
      (place is not null or exists (select 1 from stitches where footage_id = footage.id))
    order by (id is not distinct from ${replaces}), place nulls last, put_aside_at desc
    limit (select count(*) from footage where workout_id = ${workoutId} and place is not null) + ${MOST_ASIDE}`)
  const own = recordingOf(gathered)
  for (const other of known) {
    const found = together(await heardIn(other), own)
    if (found) return { id: other.id, atMs: found.atMs, driftPpm: found.driftPpm }
  }
  return null
}

async function heardIn({ id, peaksHash }: Footage): Promise<Recording> {
  const peaks = peaksHash ? unpackPeaks(await readFile(await storedFile(peaksHash))) : null
  return recordingOf({ evidence: await evidenceOf(id), peaks })
}
