// The worker process: takes jobs, runs their tasks, beats its heart, and hears of cancels.
import { Problem } from '../core/problem'
import { sql } from './db'
import { CANCELS, claimJob, endJob, recoverJobs, reportShare, type Job } from './jobs'
import { deliver, receive, stopQueue } from './queue'
import { knownProblem } from './store'
import { prepareTask } from './tasks/prepare'
import { renderTask } from './tasks/render'
import type { Share } from '../core/units'

const BEAT_MS = 1000
const RECOVER_MS = 5000

const running = new Map<string, AbortController>()

async function work(jobId: string): Promise<void> {
  const job = await claimJob(jobId)
  if (!job) return
  const halt = new AbortController()
  running.set(job.id, halt)
  let share = 0
  // One report at a time: the heart beats whether or not anything moved.
  const heart = setInterval(
    () => void reportShare(job, share).catch((error: Error) => console.error('heartbeat:', error.message)),
    BEAT_MS,
  )
  try {
    await runTask(job, {
      signal: halt.signal,
      onShare: (value) => {
        share = value
      },
    })
    await endJob(job, 'done')
  } catch (thrown) {
    const error = knownProblem(thrown)
    if (halt.signal.aborted) await endJob(job, 'cancelled')
    else {
      if (!(error instanceof Problem) || error.code === 'tool-failed') console.error(error)
      await endJob(job, 'failed', (error instanceof Problem ? error : new Problem({ code: 'unexpected' })).message)
    }
  } finally {
    clearInterval(heart)
    running.delete(job.id)
  }
}

function runTask(job: Job, context: { signal: AbortSignal; onShare: (share: Share) => void }): Promise<void> {
  switch (job.kind) {
    case 'prepare':
      return prepareTask(job, context)
    case 'render':
      return renderTask(job, context)
  }
}

async function recover(): Promise<void> {
  for (const id of await recoverJobs()) if (!running.has(id)) await deliver(id)
}

async function stop(): Promise<void> {
  // Running jobs are left as they are: the next worker finds them without a heartbeat and starts them again.
  await stopQueue().catch(() => {})
  process.exit(0)
}

process.on('SIGTERM', () => void stop())
process.on('SIGINT', () => void stop())
await sql().listen(CANCELS, (id) => running.get(id)?.abort())
await receive(work)
await recover()
setInterval(() => void recover().catch((error: Error) => console.error('recover:', error.message)), RECOVER_MS)
console.log('worker ready')
