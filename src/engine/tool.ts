// Runs ffmpeg, ffprobe and the voices as child processes: cancellable, with the end of their complaints kept.
import { spawn, type ChildProcess } from 'node:child_process'
import { Problem } from '../core/problem'

export interface ToolCall {
  signal?: AbortSignal
  /** Called with each chunk of standard output; without it the output is gathered and returned. */
  onOutput?: (chunk: Buffer) => void | Promise<void>
  /** Called once the process runs, to feed its standard input or further pipes. */
  feed?: (child: ChildProcess) => Promise<void>
  /** How many further pipes (from descriptor 3 on) the process reads from. */
  extraPipes?: number
}

const KEPT_COMPLAINT = 4000

/**
 * @returns standard output, when `onOutput` is not given.
 * @throws Problem `tool-missing`, `disk-full`, `cancelled`, or `tool-failed` with the tool's last words as its place.
 */
export async function runTool(tool: string, args: readonly string[], call: ToolCall = {}): Promise<Buffer> {
  call.signal?.throwIfAborted()
  const child = spawn(tool, args, {
    stdio: [call.feed ? 'pipe' : 'ignore', 'pipe', 'pipe', ...Array<'pipe'>(call.extraPipes ?? 0).fill('pipe')],
  })
  const stop = (): void => void child.kill('SIGKILL')
  call.signal?.addEventListener('abort', stop, { once: true })
  let complaint = ''
  child.stderr?.on('data', (chunk: Buffer) => {
    complaint = (complaint + chunk.toString()).slice(-KEPT_COMPLAINT)
  })
  const ended = new Promise<number>((resolve, reject) => {
    child.once('error', (error: NodeJS.ErrnoException) =>
      reject(
        error.code === 'ENOENT'
          ? new Problem({ code: 'tool-missing', tool, package: tool.replace('ffprobe', 'ffmpeg') })
          : error,
      ),
    )
    child.once('close', (code) => resolve(code ?? -1))
  })
  try {
    const [output, , code] = await Promise.all([
      gather(child, call.onOutput),
      call.feed?.(child).catch((error: NodeJS.ErrnoException) => ignoreClosedPipe(error)),
      ended,
    ])
    if (call.signal?.aborted) throw new Problem({ code: 'cancelled' })
    if (code !== 0) throw failure(tool, complaint)
    return output
  } catch (error) {
    stop()
    throw call.signal?.aborted ? new Problem({ code: 'cancelled' }) : error
  } finally {
    call.signal?.removeEventListener('abort', stop)
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

/** A tool that stops reading early says why itself; the broken pipe adds nothing. */
function ignoreClosedPipe(error: NodeJS.ErrnoException): void {
  if (error.code !== 'EPIPE' && error.code !== 'ERR_STREAM_DESTROYED' && error.code !== 'ERR_STREAM_PREMATURE_CLOSE')
    throw error
}

function failure(tool: string, complaint: string): Problem {
  if (/No space left on device/i.test(complaint)) return new Problem({ code: 'disk-full' })
  const last =
    complaint
      .trim()
      .split('\n')
      .filter((line) => !/^\s*$/.test(line))
      .at(-1) ?? 'no reason given'
  return new Problem({ code: 'tool-failed', tool, reason: last.trim().slice(0, 200) }, complaint)
}
