// The one connection pool of a process.
import postgres from 'postgres'
import { readSettings } from './settings'

const kept = globalThis as typeof globalThis & { jivetSql?: postgres.Sql }

/** Lazily opened, so that a build needs no database; kept across reloads of the module. */
export function sql(): postgres.Sql {
  kept.jivetSql ??= postgres(readSettings().DATABASE_URL, {
    max: 8,
    onnotice: () => {},
    connection: { application_name: 'jivet' },
  })
  return kept.jivetSql
}
