// How long a render takes that the workers of a running Jivet share, beside one ffmpeg with two threads that only
// encodes the same footage with the same settings: wall time, in pairs taken in turn. No part was rendered before.
//   JIVET_URL=http://127.0.0.1:4310 tsx bench/workers.ts FOOTAGE.mp4 [PAIRS]   (Jivet started with JIVET_WORKERS=2)
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { RENDERED } from '../src/core/render/plan'
import { encodersFor } from '../src/engine/encoding'
import { runTool } from '../src/engine/tool'
import { asking, beginUpload, pause, placeOf, planBody, sendPiece, tieBody, unlike } from './client'

const url = process.env.JIVET_URL ?? 'http://127.0.0.1:4310'
const [film, pairs = '3'] = process.argv.slice(2)
if (!film) throw new Error('usage: tsx bench/workers.ts FOOTAGE.mp4 [PAIRS]')

/** Counts through four minutes of footage. */
const PLAN = 'circuit Main: 1 round, 40 on, 20 off\n  Jug lift; Keel hold; Rope pull; Buoy press\n'

interface Told {
  footage: { state: string } | null
  reel: { key: string }
  jobs: { kind: string; state: string; share: number; problem: string | null }[]
}
const ask = asking(url)
const told = (id: string): Promise<Told> => ask('GET', `/api/workouts/${id}/progress`)

const folder = mkdtempSync(join(tmpdir(), 'jivet-bench-'))
try {
  const ratios: number[] = []
  for (let pair = 1; pair <= Number(pairs); pair++) {
    const id = await prepared(`Workers ${pair}`, unlike(readFileSync(film)))
    const bareS = await bare(film)
    const { renderedS, checkedS } = await render(id)
    ratios.push(renderedS / bareS)
    const [ratio, withCheck] = [renderedS / bareS, checkedS / bareS].map((one) => one.toFixed(2))
    print(
      `pair ${pair}: one ffmpeg, two threads ${bareS.toFixed(1)} s; the workers ${renderedS.toFixed(1)} s, ` +
        `checked after ${checkedS.toFixed(1)} s: ${ratio}, with the check ${withCheck}`,
    )
    await ask('PUT', `/api/workouts/${id}/removed`, JSON.stringify({ removed: true }))
  }
  print(`workers / ffmpeg = ${Math.min(...ratios).toFixed(3)} to ${Math.max(...ratios).toFixed(3)}`)
} finally {
  rmSync(folder, { recursive: true })
}

/** A workout with its footage heard and tied. @returns its id. */
async function prepared(title: string, bytes: Buffer): Promise<string> {
  const { id } = await ask<{ id: string }>('POST', '/api/workouts', planBody(title, PLAN))
  await sendPiece(placeOf(url, await beginUpload(url, id, 'workers.mp4', bytes.length)), bytes, 0)
  let now = await told(id)
  for (; now.footage?.state !== 'ready'; now = await told(id)) await pause(300)
  await ask('PUT', `/api/workouts/${id}/stitches`, tieBody(1, now.reel.key))
  return id
}

async function bare(path: string): Promise<number> {
  const { picture, sound } = encodersFor()
  const startMs = performance.now()
  await runTool('ffmpeg', [
    ...['-v', 'error', '-nostdin', '-y', '-threads', '2', '-i', path, ...picture, '-threads', '2', ...sound],
    ...['-movflags', '+faststart', join(folder, 'bare.mp4')],
  ])
  return (performance.now() - startMs) / 1000
}

async function render(id: string): Promise<{ renderedS: number; checkedS: number }> {
  const startMs = performance.now()
  const since = (): number => (performance.now() - startMs) / 1000
  await ask('POST', `/api/workouts/${id}/render`)
  let renderedS = 0
  for (;;) {
    const job = (await told(id)).jobs.find(({ kind }) => kind === 'render')
    if (job?.state === 'failed') throw new Error(job.problem ?? 'the render failed')
    if (job && job.share >= RENDERED) renderedS ||= since()
    if (job?.state === 'done') return { renderedS: renderedS || since(), checkedS: since() }
    await pause(100)
  }
}

function print(line: string): void {
  process.stdout.write(`${line}\n`)
}
