// Sixty and more hostile and odd media files: each ends in footage that renders as long as it was measured, or in one
// clear sentence; none makes ffmpeg open another file or the network, and none takes long.
import { execFileSync, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Writable } from 'node:stream'
import { afterAll, describe, expect, it } from 'vitest'
import { followed } from '../src/core/cut/follow'
import { expand } from '../src/core/expand/expand'
import { Problem } from '../src/core/problem'
import { circuit, score } from '../src/core/testing'
import { footageInput, LONGEST_MS, patience } from '../src/engine/input'
import { listenTo } from '../src/engine/listen'
import { probeFootage } from '../src/engine/probe'
import { makeProxy } from '../src/engine/proxy'
import { renderVideo } from '../src/engine/render'
import { runTool } from '../src/engine/tool'
import { probe } from './e2e/decode'
import { makeMedia } from './hostile'

const folder = mkdtempSync(join(tmpdir(), 'jivet-hostile-'))
let calls = 0
const network = createServer((socket) => {
  calls++
  socket.destroy()
}).listen(0, '127.0.0.1')
afterAll(() => {
  network.close()
  rmSync(folder, { recursive: true })
})
// Whoever opened this to read would wait for a writer that never comes.
const fifo = join(folder, 'pipe')
execFileSync('mkfifo', [fifo])
await once(network, 'listening')
const { port } = network.address() as AddressInfo
const media = makeMedia(folder, fifo, `http://127.0.0.1:${port}`)

/** All that Jivet does with a file. @returns the length of what was rendered, and what was measured. */
async function use(path: string): Promise<{ rendered: number; measured: number }> {
  const facts = await probeFootage(path)
  if (facts.audioCodec !== null) await listenTo(path, facts)
  if (!facts.browserPlayable) await makeProxy(path, `${path}.proxy.mp4`, facts)
  const { segments } = expand(score(circuit()))
  const first = { segmentId: segments[0]?.id ?? '', edge: 'start' as const, footageMs: 0 }
  const out = `${path}.out.mp4`
  await renderVideo({ reel: [{ path, facts }], ...followed(segments, [first], facts.durationMs), out })
  return { rendered: probe(out).video.durationMs, measured: facts.durationMs }
}

describe('media', () => {
  it('are at least sixty', () => expect(media.length).toBeGreaterThanOrEqual(60))
  it.each(media)('$name ends in $ends', { timeout: 300_000 }, async ({ name, ends }) => {
    const result = await use(join(folder, name)).catch((error: unknown) => error)
    if (result instanceof Problem) {
      expect(ends).not.toBe('footage')
      // A sentence of ours about the file, and not the tool's own last words.
      expect(['tool-failed', 'tool-killed', 'tool-slow', 'unexpected']).not.toContain(result.code)
      expect(result.message).toMatch(/^\p{Lu}.*\.$/su)
    } else {
      if (result instanceof Error) throw result
      const { rendered, measured } = result as Awaited<ReturnType<typeof use>>
      expect(ends).not.toBe('refused')
      // One picture of the slowest film here, or what one second holds.
      expect(Math.abs(rendered - measured)).toBeLessThan(1100)
    }
    expect(calls).toBe(0)
  })
  it('that were cut short are said to be so, and only those', async () => {
    const codeOf = (name: string) =>
      probeFootage(join(folder, name)).then(
        () => null,
        (error: Problem) => error.code,
      )
    expect(await codeOf('cut-before-its-index.mp4')).toBe('broken-end')
    for (const name of ['noise-under-ftyp.mp4', 'zeros.mp4', 'document.mp4'])
      expect(await codeOf(name)).toBe('not-video')
    expect((await probeFootage(join(folder, 'picture-ends-early.mkv'))).brokenEnd).toBe(false)
    expect((await probeFootage(join(folder, 'trimmed.mp4'))).durationMs).toBeLessThan(2200)
    expect(await codeOf('22000-hours.mkv')).toBe('footage-too-long')
    expect(await codeOf('too-large.mkv')).toBe('picture-too-large')
  })
})

describe('a tool', () => {
  it('is refused every list and protocol, whatever it is told to open', async () => {
    const lists = ['hls.mp4', 'concat.mp4', 'sdp.mp4', 'hls-net.mp4']
    for (const name of lists)
      await expect(
        runTool('ffmpeg', ['-v', 'error', '-nostdin', ...footageInput(join(folder, name)), '-f', 'null', '-']),
      ).rejects.toMatchObject({ code: 'tool-failed' })
  })
  it('is stopped at its limit, and one that others killed is told from one that failed', async () => {
    await expect(runTool('sleep', ['60'], { limitMs: 100 })).rejects.toMatchObject({ code: 'tool-slow' })
    await expect(runTool('sh', ['-c', 'kill -KILL $$'])).rejects.toMatchObject({ code: 'tool-killed' })
    await expect(runTool('sh', ['-c', 'kill -SEGV $$'])).rejects.toMatchObject({ code: 'tool-failed' })
    await expect(runTool('sh', ['-c', 'exit 3'])).rejects.toMatchObject({ code: 'tool-failed' })
  })
  it('breaks the pipes that fed it without ending who fed it', async () => {
    const feed = (child: ChildProcess): Promise<void> => {
      const further = child.stdio[3] as Writable
      further.write(Buffer.alloc(1 << 20))
      return Promise.resolve()
    }
    const broken: unknown[] = []
    const hear = (error: unknown): void => void broken.push(error)
    process.prependListener('uncaughtException', hear)
    await expect(runTool('sh', ['-c', 'exit 3'], { extraPipes: 1, feed })).rejects.toMatchObject({
      code: 'tool-failed',
    })
    process.off('uncaughtException', hear)
    expect(broken).toEqual([])
  })
  it('never waits longer than a timer can', () => {
    expect(patience(LONGEST_MS, 30)).toBeLessThan(2 ** 31)
    expect(Number.isInteger(patience(0.3, 7))).toBe(true)
  })
  it('ends with the process that started it, also when that is killed', async () => {
    const starter = `import { runTool } from './src/engine/tool.ts'
      void runTool('sleep', ['98765']).catch(() => {})
      setTimeout(() => process.kill(process.pid, 'SIGKILL'), 600)`
    const count = (): number =>
      execFileSync('sh', ['-c', 'pgrep -fc "^sleep 98765" || true']).toString().trim() === '0' ? 0 : 1
    const run = runTool(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', starter])
    await expect(run).rejects.toMatchObject({ code: 'tool-killed' })
    await new Promise((done) => setTimeout(done, 300))
    expect(count()).toBe(0)
  })
})
