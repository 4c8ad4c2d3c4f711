// The thread: takes one task after another and answers with what came of it, or with the problem.
import { parentPort } from 'node:worker_threads'
import { Problem } from '../../core/problem'
import { HEAVY, type HeavyTask } from './tasks'

interface Asked {
  task: HeavyTask
  input: never
}

parentPort?.on('message', ({ task, input }: Asked) => void answered(task, input))

async function answered(task: HeavyTask, input: never): Promise<void> {
  try {
    parentPort?.postMessage({ output: await HEAVY[task](input) })
  } catch (error) {
    const known = error instanceof Problem ? { fact: error.fact, place: error.place } : null
    parentPort?.postMessage({ problem: known, message: error instanceof Error ? error.stack : String(error) })
  }
}
