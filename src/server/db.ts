// The one connection pool of a process.
import postgres from 'postgres'
import { readSettings } from './settings'

const kept = globalThis as typeof globalThis & { jivetSql?: postgres.Sql }

/** Lazily opened, so that a build needs no database; kept across reloads of the module. */
export function sql(): postgres.Sql {
  kept.jivetSql ??= postgres(readSettings().DATABASE_URL, {
    max: 8,
    onnotice: () => {},
    connection: {
      application_name: 'jivet',
      // Nothing waits for ever: a statement, a lock, a transaction whose owner has stopped (milliseconds).
      statement_timeout: 60_000,
      lock_timeout: 20_000,
      idle_in_transaction_session_timeout: 60_000,
    },
  })
  return kept.jivetSql
}

/** What PostgreSQL ends of two transactions that stand in each other's way: 40001, 40P01. It can be done again. */
const IN_EACH_OTHERS_WAY = new Set(['40001', '40P01'])
const MOST_TRIES = 4

/**
 * Runs a transaction, again where it lost against another. Whatever is asked within it is asked of its own connection:
 * one that waits for a second of the pool waits for ever where all do.
 */
export async function inTransaction<T>(work: (tx: postgres.TransactionSql) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++)
    try {
      const answer = await sql().begin(async (tx) => ({ result: await work(tx) }))
      return answer.result
    } catch (error) {
      const code = String((error as { code?: unknown } | null)?.code ?? '')
      if (!IN_EACH_OTHERS_WAY.has(code) || attempt === MOST_TRIES) throw error
    }
}
