// The models that ship with the application, read from disk once.
import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { readCallModel, type CallModel } from '../core/hear/calls'
import { Problem } from '../core/problem'

const FILE = 'calls.bin'
let calls: Promise<CallModel> | null = null

/** The network that hears a coach's calls. @throws Problem `model-missing` or `model-damaged`. */
export function callModel(): Promise<CallModel> {
  calls ??= read().catch((error: unknown) => {
    calls = null
    throw error
  })
  return calls
}

async function read(): Promise<CallModel> {
  for (const root of [join(import.meta.dirname, '..', '..'), process.cwd()]) {
    const bytes = await readFile(join(root, 'models', FILE)).catch(() => null)
    if (bytes) return readCallModel(bytes)
  }
  throw new Problem({ code: 'model-missing', name: FILE })
}
