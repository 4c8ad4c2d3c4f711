// Runs `db/migrations/NNN_what.sql` in order, each once, under an advisory lock. A step that has to read documents is
// code and stands in `migrations/` beside this file; it takes its place in the same order.
import { readdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { TransactionSql } from 'postgres'
import { inTransaction } from './db'
import { keyStations } from './migrations/keyStations'
import { tieLastMoves } from './migrations/lastRest'

const LOCK = 0x4a49_5645

type Step = (tx: TransactionSql) => Promise<void>
const STEPS: Readonly<Record<string, Step>> = { '004_station_keys': keyStations, '022_last_rest': tieLastMoves }

/** @returns the names of the migrations that were run now. */
export async function migrate(folder = join(process.cwd(), 'db', 'migrations')): Promise<string[]> {
  const files = (await readdir(folder)).filter((file) => /^\d{3}_\w+\.sql$/.test(file))
  const names = [...files, ...Object.keys(STEPS)].sort()
  return inTransaction(async (tx) => {
    // A large table takes its time.
    await tx`set local statement_timeout = 0`
    await tx`set local lock_timeout = 0`
    await tx`select pg_advisory_xact_lock(${LOCK})`
    await tx`create table if not exists migrations (name text primary key, run_at timestamptz not null default now())`
    const done = new Set((await tx<{ name: string }[]>`select name from migrations`).map((row) => row.name))
    const fresh = names.filter((name) => !done.has(name))
    for (const name of fresh) {
      const step = STEPS[name]
      if (step) await step(tx)
      else await tx.unsafe(await readFile(join(folder, name), 'utf8'))
      await tx`insert into migrations ${tx({ name })}`
    }
    return fresh
  })
}
