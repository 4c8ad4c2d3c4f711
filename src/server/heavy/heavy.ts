// Hands heavy work to a thread and waits for it. One task at a time, in the order asked; a task whose caller has gone
// away is ended with its thread, and the next gets a fresh one.
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import type { ProblemFact } from '../../core/facts'
import { Problem } from '../../core/problem'
import type { HeavyInput, HeavyOutput, HeavyTask } from './tasks'

interface Answer {
  output?: unknown
  problem?: { fact: ProblemFact; place: string | null } | null
  message?: string
}

/** Waiting tasks at most; one more is refused rather than kept for ever. */
const MOST_WAITING = 128

const kept = globalThis as typeof globalThis & {
  jivetThread?: Worker
  jivetHeavy?: Promise<unknown>
  jivetWaiting?: number
}

/**
 * What a thread begins with: it learns to read TypeScript, then takes up its work from the sources. It is handed over
 * as text, as the server's own bundle has no file for a thread to start from.
 */
const beginning = (): string => {
  const work = pathToFileURL(join(process.cwd(), 'src', 'server', 'heavy', 'thread.ts'))
  return `import('tsx/esm/api').then(({ register }) => { register(); return import('${work.href}') })`
}

function thread(): Worker {
  if (kept.jivetThread) return kept.jivetThread
  const fresh = new Worker(beginning(), { eval: true })
  fresh.unref()
  fresh.once('exit', () => {
    if (kept.jivetThread === fresh) kept.jivetThread = undefined
  })
  kept.jivetThread = fresh
  return fresh
}

/**
 * @param signal ends the work when its caller goes away.
 * @throws Problem of the task itself, `busy` when too much waits already, or `cancelled`.
 */
export async function heavy<Task extends HeavyTask>(
  task: Task,
  input: HeavyInput<Task>,
  signal?: AbortSignal,
): Promise<HeavyOutput<Task>> {
  if ((kept.jivetWaiting ?? 0) >= MOST_WAITING) throw new Problem({ code: 'busy' })
  kept.jivetWaiting = (kept.jivetWaiting ?? 0) + 1
  const before = kept.jivetHeavy ?? Promise.resolve()
  const mine = before.catch(() => {}).then(() => ask(task, input, signal))
  kept.jivetHeavy = mine
  try {
    return (await mine) as HeavyOutput<Task>
  } finally {
    kept.jivetWaiting = (kept.jivetWaiting ?? 1) - 1
  }
}

function ask(task: HeavyTask, input: unknown, signal: AbortSignal | undefined): Promise<unknown> {
  if (signal?.aborted) return Promise.reject(new Problem({ code: 'cancelled' }))
  const worker = thread()
  return new Promise<unknown>((resolve, reject) => {
    const cancel = (): void => {
      kept.jivetThread = undefined
      void worker.terminate()
      settle(() => reject(new Problem({ code: 'cancelled' })))
    }
    const onMessage = ({ output, problem, message }: Answer): void =>
      settle(() => {
        if (problem) reject(new Problem(problem.fact, problem.place))
        else if (message !== undefined) reject(new Error(message))
        else resolve(output)
      })
    const onError = (error: Error): void => settle(() => reject(error))
    const onExit = (): void => settle(() => reject(new Error('the thread of heavy work ended')))
    const settle = (how: () => void): void => {
      worker.off('message', onMessage).off('error', onError).off('exit', onExit)
      signal?.removeEventListener('abort', cancel)
      how()
    }
    worker.on('message', onMessage).on('error', onError).on('exit', onExit)
    signal?.addEventListener('abort', cancel, { once: true })
    worker.postMessage({ task, input })
  })
}
