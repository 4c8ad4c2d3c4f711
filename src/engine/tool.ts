// Runs ffmpeg, ffprobe and the voices as child processes: cancellable, with the end of their complaints kept.
import { spawn, type ChildProcess } from 'node:child_process'
import { Problem } from '../core/problem'
import type { Ms } from '../core/units'
import { clipped } from '../core/text'

export interface ToolCall {
  signal?: AbortSignal
  /** Called with each chunk of standard output; without it the output is gathered and returned. */
  onOutput?: (chunk: Buffer) => void | Promise<void>
  /** Called once the process runs, to feed its standard input or further pipes. */
  feed?: (child: ChildProcess) => Promise<void>
  /** How long it may take. Default: ten minutes. */
  limitMs?: Ms
  /** How many further pipes (from descriptor 3 on) the process reads from. */
  extraPipes?: number
}

const KEPT_COMPLAINT = 4000
const USUAL_LIMIT_MS: Ms = 600_000

/**
 * What every tool is started through (util-linux): the kernel ends it with the process that started it, however that
 * ended, and no program it might start gains rights.
 */
const KEEPER = '/usr/bin/setpriv'
const KEPT = ['--no-new-privs', '--pdeathsig', 'KILL'] as const

/**
 * Pictures are larger than what glibc gets from the kernel once and for all (mallopt(3)): by default each is asked for
 * and given back anew, page by page, which takes a tenth of a render (docs/measurements.md).
 */
const KEEPS_MEMORY = { MALLOC_MMAP_THRESHOLD_: String(64 * 1024 ** 2), MALLOC_TRIM_THRESHOLD_: String(256 * 1024 ** 2) }

/**
 * What a tool is given of our environment. It decodes what strangers made: passphrase, secrets and the database's
 * address are none of its business.
 */
export const toolEnvironment = (env: NodeJS.ProcessEnv): NodeJS.ProcessEnv =>
  Object.fromEntries(
    Object.entries(env).filter(([name]) => /^(?:PATH|HOME|LANG|LC_\w+|XDG_\w+|TMPDIR)$/.test(name)),
  ) as NodeJS.ProcessEnv

/** Signals by which somebody else ends a process; any other is a crash of its own. */
const ENDED_FROM_OUTSIDE: ReadonlySet<NodeJS.Signals> = new Set(['SIGKILL', 'SIGTERM', 'SIGINT', 'SIGHUP'])

/**
 * @returns standard output, when `onOutput` is not given.
 * @throws Problem `tool-missing`, `disk-full`, `cancelled`, `tool-slow`, `tool-killed` where others ended it, or
 * `tool-failed` with the tool's last words as its place.
 */
export async function runTool(tool: string, args: readonly string[], call: ToolCall = {}): Promise<Buffer> {
  call.signal?.throwIfAborted()
  const limit = AbortSignal.timeout(call.limitMs ?? USUAL_LIMIT_MS)
  const child = spawn(KEEPER, [...KEPT, tool, ...args], {
    stdio: [call.feed ? 'pipe' : 'ignore', 'pipe', 'pipe', ...Array<'pipe'>(call.extraPipes ?? 0).fill('pipe')],
    env: { ...toolEnvironment(process.env), ...KEEPS_MEMORY },
    // A process group of its own, ended as a whole.
    detached: true,
  })
  const stop = (): void => endGroup(child)
  call.signal?.addEventListener('abort', stop, { once: true })
  limit.addEventListener('abort', stop, { once: true })
  let complaint = ''
  child.stderr?.on('data', (chunk: Buffer) => {
    complaint = (complaint + chunk.toString()).slice(-KEPT_COMPLAINT)
  })
  outliveItsPipes(child)
  const ended = new Promise<{ code: number; signal: NodeJS.Signals | null }>((resolve, reject) => {
    child.once('error', reject)
    child.once('close', (code, signal) => resolve({ code: code ?? -1, signal }))
  })
  try {
    const [output, , { code, signal }] = await Promise.all([
      gather(child, call.onOutput),
      call.feed?.(child).catch((error: NodeJS.ErrnoException) => ignoreClosedPipe(error)),
      ended,
    ])
    if (call.signal?.aborted) throw new Problem({ code: 'cancelled' })
    if (limit.aborted) throw new Problem({ code: 'tool-slow', tool })
    if (signal && ENDED_FROM_OUTSIDE.has(signal)) throw new Problem({ code: 'tool-killed', tool })
    if (code !== 0) throw failure(tool, complaint)
    return output
  } catch (error) {
    stop()
    throw call.signal?.aborted ? new Problem({ code: 'cancelled' }) : error
  } finally {
    call.signal?.removeEventListener('abort', stop)
    limit.removeEventListener('abort', stop)
  }
}

/** Who reads or feeds a pipe hears when it breaks; one that breaks after that would end this process. */
function outliveItsPipes(child: ChildProcess): void {
  for (const pipe of child.stdio) pipe?.on('error', () => {})
}

function endGroup({ pid, exitCode, signalCode }: ChildProcess): void {
  if (pid === undefined || exitCode !== null || signalCode !== null) return
  try {
    process.kill(-pid, 'SIGKILL')
  } catch {
    /* gone already */
  }
}

async function gather(child: ChildProcess, onOutput: ToolCall['onOutput']): Promise<Buffer> {
  const chunks: Buffer[] = []
  for await (const chunk of child.stdout ?? []) {
    if (onOutput) await onOutput(chunk as Buffer)
    else chunks.push(chunk as Buffer)
  }
  return Buffer.concat(chunks)
}

const CLOSED_PIPE: ReadonlySet<string> = new Set([
  ...['EPIPE', 'ECONNRESET', 'ERR_STREAM_DESTROYED', 'ERR_STREAM_PREMATURE_CLOSE', 'ABORT_ERR'],
])

/** A tool that stops reading early says why itself; the broken pipe adds nothing. */
function ignoreClosedPipe(error: NodeJS.ErrnoException): void {
  if (!CLOSED_PIPE.has(error.code ?? '')) throw error
}

function failure(tool: string, complaint: string): Problem {
  // `setpriv` itself, where there is no such program.
  if (/^setpriv: .*No such file/m.test(complaint))
    return new Problem({ code: 'tool-missing', tool, package: tool.replace('ffprobe', 'ffmpeg') })
  if (/No space left on device/i.test(complaint)) return new Problem({ code: 'disk-full' })
  const last =
    complaint
      .trim()
      .split('\n')
      .filter((line) => !/^\s*$/.test(line))
      .at(-1) ?? 'no reason given'
  return new Problem({ code: 'tool-failed', tool, reason: clipped(last.trim(), 200) }, complaint)
}
