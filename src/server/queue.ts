// Delivery of jobs by pg-boss, running over Postgres.js.
import PgBoss from 'pg-boss'
import postgres from 'postgres'
import { readSettings } from './settings'

const QUEUE = 'jivet-jobs'

const kept = globalThis as typeof globalThis & { jivetBoss?: Promise<PgBoss> }

/**
 * One connection: pg-boss sends whole transactions as one text, which Postgres.js allows on a single connection only.
 */
/** JSON text passes through untouched: pg-boss has serialised its own values already. */
const jsonType = {
  to: 114,
  from: [114, 3802],
  serialize: (value: unknown) => (typeof value === 'string' ? value : JSON.stringify(value)),
  parse: (text: string): unknown => JSON.parse(text),
}

async function boss(): Promise<PgBoss> {
  kept.jivetBoss ??= start()
  return kept.jivetBoss
}

async function start(): Promise<PgBoss> {
  const client = postgres(readSettings().DATABASE_URL, {
    max: 1,
    onnotice: () => {},
    transform: { undefined: null },
    types: { json: jsonType },
    connection: { application_name: 'jivet-queue' },
  })
  const queue = new PgBoss({
    db: {
      executeSql: async (text: string, values: unknown[]) => ({
        rows: [...(await client.unsafe(text, (values ?? []) as postgres.ParameterOrJSON<never>[]))],
      }),
    },
  })
  queue.on('error', (error) => console.error('queue:', error.message))
  await queue.start()
  await queue.createQueue(QUEUE)
  return queue
}

export async function deliver(jobId: string): Promise<void> {
  await (await boss()).send(QUEUE, { jobId }, { expireInHours: 12, retryLimit: 0 })
}

/** Calls `work` for each delivered job, one at a time. */
export async function receive(work: (jobId: string) => Promise<void>): Promise<void> {
  await (
    await boss()
  ).work<{ jobId: string }>(QUEUE, { pollingIntervalSeconds: 0.5, batchSize: 1 }, async ([message]) => {
    if (message) await work(message.data.jobId)
  })
}

export async function stopQueue(): Promise<void> {
  if (kept.jivetBoss) await (await kept.jivetBoss).stop({ graceful: false })
}
