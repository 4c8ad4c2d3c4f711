// Runs `db/migrations/NNN_what.sql` in order, each once, under an advisory lock.
import { readdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { sql } from './db'

const LOCK = 0x4a49_5645

/** @returns the names of the migrations that were run now. */
export async function migrate(folder = join(process.cwd(), 'db', 'migrations')): Promise<string[]> {
  const files = (await readdir(folder)).filter((file) => /^\d{3}_\w+\.sql$/.test(file)).sort()
  return sql().begin(async (tx) => {
    await tx`select pg_advisory_xact_lock(${LOCK})`
    await tx`create table if not exists migrations (name text primary key, run_at timestamptz not null default now())`
    const done = new Set((await tx<{ name: string }[]>`select name from migrations`).map((row) => row.name))
    const fresh = files.filter((file) => !done.has(file))
    for (const file of fresh) {
      await tx.unsafe(await readFile(join(folder, file), 'utf8'))
      await tx`insert into migrations ${tx({ name: file })}`
    }
    return fresh
  })
}
