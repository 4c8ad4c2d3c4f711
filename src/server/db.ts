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

/**
 * For processes of our own: Postgres.js (3.4) may write to a socket that closed a moment ago, from a timer that nobody
 * can catch. The query fails by itself; the process goes on. Anything else uncaught ends it, to be started anew.
 */
export function surviveLostSocket(): void {
  process.on('uncaughtException', (error) => {
    console.error(error)
    if (!/postgres\/(?:src|cjs\/src)\/connection\.js/.test(error.stack?.split('\n')[1] ?? '')) process.exit(1)
  })
}
