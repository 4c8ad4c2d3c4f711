// The worker process: one lane for each kind of job, so that preparing never waits for a render. It takes jobs, runs
// their tasks, beats their hearts, and hears of cancels.
import { Problem } from '../core/problem'
import type { Share } from '../core/units'
import { sql } from './db'
import { beat, CANCELS, claimJob, endJob, finishJob, JOB_KINDS, releaseJob, WAITING, Watch } from './jobs'
import type { ClaimedJob, JobKind } from './jobs'
import { watchRoom } from './room'
import { knownProblem } from './store'
import { matchRecords } from './match'
import { makersHere } from './parts'
import { prepareTask } from './tasks/prepare'
import { lanes } from '../engine/encoding'
import { encoderHere } from '../engine/hardware'
import { chunksTask } from './tasks/chunks'
import { publishTask } from './tasks/publish'
import { renderTask } from './tasks/render'
import type { Finish, TaskContext } from './tasks/task'
import { evenOut, tidyByClock } from './tidy'

const BEAT_MS = 1000
const WATCH_MS = 3000
/** A new job is told; this is for what was told while nobody listened. */
const LOOK_AGAIN_MS = 2000
const TIDY_MS = 3_600_000

/** Said by `npm run worker` with a bucket. */
const NO_UPLOADS = '--no-uploads'

/** Why an attempt is broken off. */
type Reason = 'cancel' | 'lost' | 'stopping' | 'full'

/** Without a disk that all share, uploads lie where they were sent to, and only there they can be prepared. */
const kinds = JOB_KINDS.filter((kind) => kind !== 'prepare' || !process.argv.includes(NO_UPLOADS))
const running = new Map<string, AbortController>()
const woken = new Map<JobKind, Set<() => void>>()
let stopping = false
/** All lanes; nothing while the worker is only starting. */
let working: Promise<unknown> = Promise.resolve()

/** Takes jobs of one kind, one after another, until the worker stops. */
async function lane(kind: JobKind): Promise<void> {
  const makers = await makersHere()
  while (!stopping) {
    const job = await claimJob(kind, makers).catch(complain(`taking a job to ${kind}`))
    if (job) await work(job).catch(complain(`job ${job.id}`))
    else await sleep(kind)
  }
}

/** Until a job of the kind is told, or a while has passed. */
const sleep = (kind: JobKind): Promise<void> =>
  new Promise((resolve) => {
    const wakers = woken.get(kind) ?? new Set()
    woken.set(kind, wakers)
    const wake = (): void => {
      clearTimeout(timer)
      wakers.delete(wake)
      resolve()
    }
    const timer = setTimeout(wake, LOOK_AGAIN_MS)
    wakers.add(wake)
  })

const wakeAll = (kind: JobKind): void => woken.get(kind)?.forEach((wake) => wake())

/** The database may be away for a while: said, and tried again. */
const complain =
  (what: string) =>
  (error: Error): null => {
    console.error(`${what}: ${error.message}`)
    return null
  }

async function work(job: ClaimedJob): Promise<void> {
  const halt = new AbortController()
  running.set(job.id, halt)
  let share = 0
  const heart = setInterval(
    () =>
      void beat(job, share).then(
        (verdict) => verdict === 'go-on' || halt.abort(verdict satisfies Reason),
        complain('heartbeat'),
      ),
    BEAT_MS,
  )
  const endRoom = watchRoom(() => halt.abort('full' satisfies Reason))
  const onShare = (value: Share): void => void (share = value)
  try {
    const finish = await runTask(job, { signal: halt.signal, onShare, attempt: job.claim })
    halt.signal.throwIfAborted()
    await finishJob(job, finish)
  } catch (thrown) {
    await breakOff(job, knownProblem(thrown), halt.signal)
  } finally {
    clearInterval(heart)
    endRoom()
    running.delete(job.id)
  }
}

/** What becomes of a job whose attempt did not end well. Without the claim none of this changes anything. */
async function breakOff(job: ClaimedJob, error: unknown, signal: AbortSignal): Promise<void> {
  const reason = signal.aborted ? (signal.reason as Reason) : null
  const code = error instanceof Problem ? error.code : null
  if (reason === 'lost' || code === 'claim-lost') return
  if (reason === 'stopping') return releaseJob(job, false)
  if (reason === 'full') return endJob(job, 'failed', new Problem({ code: 'disk-full' }).message)
  if (reason === 'cancel' || code === 'cancelled') return endJob(job, 'cancelled')
  // A tool that was killed, and a database or a bucket that went away, say nothing about the footage.
  if (code === 'tool-killed' || code === 'database-away' || code === 'store-away') return releaseWhenBack(job)
  if (code === null || code === 'tool-failed') console.error(error)
  await endJob(job, 'failed', (error instanceof Problem ? error : new Problem({ code: 'unexpected' })).message)
}

/** The claim stays ours while the database is away; nobody can take the job meanwhile. */
async function releaseWhenBack(job: ClaimedJob): Promise<void> {
  for (let attempt = 0; attempt < 30 && !stopping; attempt++) {
    try {
      return await releaseJob(job, true)
    } catch {
      await new Promise((done) => setTimeout(done, 1000))
    }
  }
}

function runTask(job: ClaimedJob, context: TaskContext): Promise<Finish> {
  switch (job.kind) {
    case 'prepare':
      return prepareTask(job, context)
    case 'render':
      return renderTask(job, context)
    case 'publish':
      return publishTask(job, context)
    case 'chunks':
      return chunksTask(job, context)
  }
}

/** What runs is put back whole before the worker goes. */
async function stop(): Promise<void> {
  if (stopping) return
  stopping = true
  for (const halt of running.values()) halt.abort('stopping' satisfies Reason)
  kinds.forEach(wakeAll)
  await Promise.race([working, new Promise((done) => setTimeout(done, 4000))])
  await sql()
    .end({ timeout: 1 })
    .catch(() => {})
  process.exit(0)
}

process.on('SIGTERM', () => void stop())
process.on('SIGINT', () => void stop())
await sql().listen(CANCELS, (id) => running.get(id)?.abort('cancel' satisfies Reason))
await sql().listen(WAITING, (kind) => wakeAll(kind as JobKind))
// Parts of renders use one core each.
working = Promise.all([...kinds.map(lane), ...Array.from({ length: lanes() - 1 }, () => lane('chunks'))])
const watch = new Watch()
setInterval(() => void lookAfter().catch(complain('watching')), WATCH_MS)
setInterval(() => void tidyUp(), TIDY_MS)
void tidyUp()

/** Puts back what a dead worker had in hand, and sweeps what it had begun. */
async function lookAfter(): Promise<void> {
  if ((await watch.look(performance.now())).length) await tidyUp()
}

/** Finished uploads become footage, and what nobody needs any more goes. */
async function tidyUp(): Promise<void> {
  await matchRecords().catch(complain('matching'))
  await tidyByClock().catch(complain('tidying'))
  await evenOut().catch(complain('the bucket'))
}

const asked = process.env.JIVET_ENCODER
if (asked === 'hardware')
  console.error(`${(await encoderHere()) ?? 'No hardware was found that encodes as it should: the processor'} encodes`)
else if (asked) console.error(`JIVET_ENCODER=${asked} is not known, only "hardware" is: the processor encodes`)
console.log('worker ready')
