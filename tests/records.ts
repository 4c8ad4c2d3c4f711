// A PostgreSQL of their own for tests of the server's records, in a data folder that goes with them.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll } from 'vitest'
import { USUAL_CUT } from '../src/core/cut/fit'
import { USUAL_LOOK } from '../src/core/look/looks/family'
import type { Pack } from '../src/server/packs'

/** A video of a workout that nobody has rendered. */
export const rendered = (
  of: Pick<Pack, 'workoutId' | 'jobId'>,
  also: Partial<Pack> = {},
): Omit<Pack, 'id' | 'createdAt'> => ({
  ...{ title: 'Deck Hours', videoHash: 'x', videoBytes: 1, captions: '', chapters: '', description: '', written: '' },
  ...{ clashes: 0, purpose: 'host', scoreRevision: 1, stitchRevision: 1, scoreShown: null, reel: null },
  ...{ cut: USUAL_CUT, look: USUAL_LOOK, framing: null, cues: null, mix: null, verified: null, rendered: null },
  ...of,
  ...also,
})

/**
 * Started before the first test of a file, stopped after the last.
 * @param onUrl called with the address of the empty database.
 * @returns the data folder.
 */
export function startedDatabase(onUrl: (url: string) => Promise<void> = async () => {}): string {
  const home = mkdtempSync(join(tmpdir(), 'jivet-db-'))
  let stop = async (): Promise<void> => {}
  beforeAll(async () => {
    const machine = (await import('../scripts/cluster.mjs' as string)) as {
      startDatabase: (home: string) => Promise<{ url: string; stop: () => Promise<void> }>
    }
    const database = await machine.startDatabase(home)
    process.env.DATABASE_URL = database.url
    process.env.JIVET_HOME = home
    stop = database.stop
    await onUrl(database.url)
  })
  afterAll(async () => {
    const { sql } = await import('../src/server/db')
    await sql().end()
    await stop()
    rmSync(home, { recursive: true, force: true })
  })
  return home
}
