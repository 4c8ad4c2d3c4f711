// Footage and ties for tests of the database: made up, in the rows that a prepared file has.
import type { Version } from '../src/core/version'
import type { FootageFacts } from '../src/engine/probe'
import type { Stitches } from '../src/server/stitches'

// Read late: the settings that it asks for are made by the test.
const parts = async () => ({
  ...(await import('../src/server/db')),
  ...(await import('../src/server/footage')),
  ...(await import('../src/server/reel')),
  ...(await import('../src/server/stitches')),
})

/** Saves ties of the reel as it is. */
export async function save(workoutId: string, stitches: Stitches): Promise<Version> {
  const { saveStitches, keyOf, reelOf } = await parts()
  return saveStitches(workoutId, stitches, keyOf(await reelOf(workoutId)))
}

/** A ready footage of 90 s in a workout, in its reel. */
export async function filmed(
  workoutId: string,
  name = 'deck.mp4',
  {
    replaces,
    planMs = null,
    facts = {},
  }: { replaces?: string; planMs?: number | null; facts?: Partial<FootageFacts> } = {},
): Promise<string> {
  const { addFootage, updateFootage, takeIntoReel, sql } = await parts()
  const upload = `upload-${workoutId}-${name}`
  const id = await addFootage({ workoutId, name, bytes: 1000, upload, ...(replaces ? { replaces } : {}) })
  await updateFootage(id, { state: 'ready', hash: name, facts: { ...FACTS, ...facts }, planMs })
  await sql()`update jobs set state = 'done' where footage_id = ${id}`
  await takeIntoReel(id)
  return id
}

export const FACTS: FootageFacts = {
  durationMs: 90_000,
  zeroS: 0,
  pictureFromMs: 0,
  soundFromMs: 0,
  width: 1280,
  height: 720,
  rate: { num: 30, den: 1 },
  videoCodec: 'h264',
  audioCodec: 'aac',
  audioRate: 48_000,
  audioChannels: 1,
  browserPlayable: true,
  brokenEnd: false,
  recordedMs: null,
}
