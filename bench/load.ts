// A hundred clients for ten minutes against a running Jivet: saves, uploads, streams and reads; errors, times and the
// server's memory, minute by minute.
//   JIVET_URL=http://127.0.0.1:4310 tsx bench/load.ts [MINUTES] [CLIENTS]
import { execFileSync } from 'node:child_process'
import { randomBytes, randomUUID } from 'node:crypto'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const url = process.env.JIVET_URL ?? 'http://127.0.0.1:4310'
const [minutes = '10', clients = '100'] = process.argv.slice(2)
const json = { 'content-type': 'application/json' }
const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms))

const folder = mkdtempSync(join(tmpdir(), 'jivet-load-'))
execFileSync('ffmpeg', [
  ...['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc2=s=160x120:r=10:d=2', '-f', 'lavfi', '-i', 'sine=d=2'],
  ...['-shortest', '-pix_fmt', 'yuv420p', join(folder, 'clip.mp4')],
])
const clip = readFileSync(join(folder, 'clip.mp4'))
rmSync(folder, { recursive: true })

const errors: string[] = []
const times = new Map<string, number[]>()

async function timed(what: string, path: string, init: RequestInit = {}): Promise<Response | null> {
  const from = performance.now()
  const answer = await fetch(url + path, init).catch((error: Error) => {
    errors.push(`${what}: ${error.message}`)
    return null
  })
  if (answer && !answer.ok) errors.push(`${what}: ${answer.status} ${(await answer.text()).slice(0, 120)}`)
  times.set(what, [...(times.get(what) ?? []), performance.now() - from])
  return answer?.ok ? answer : null
}

const made: string[] = []
async function make(title: string): Promise<string> {
  const plan = `title ${title}\ncircuit Main: 8 rounds, 20 on, 10 off\n  Jug lift; Lock-gate push; Tiller twist\n`
  const answer = await timed('make', '/api/workouts', {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ plan, name: 'load.score.txt' }),
  })
  const { id } = (await answer?.json()) as { id: string }
  made.push(id)
  return id
}

const end = Date.now() + Number(minutes) * 60_000
const going = (): boolean => Date.now() < end

/** Types a title twice a second, and reads its page now and then. */
async function writer(number: number): Promise<void> {
  const id = await make(`Load ${number}`)
  const loaded = await timed('read', `/api/workouts/${id}/score`)
  let { score, revision } = (await loaded?.json()) as { score: { title: string }; revision: number }
  for (let save = 1; going(); save++) {
    score = { ...score, title: `Load ${number}, ${save}` }
    const body = JSON.stringify({ score, revision, key: randomUUID() })
    const answer = await timed('save', `/api/workouts/${id}/score`, { method: 'PUT', headers: json, body })
    if (answer) revision = ((await answer.json()) as { revision: number }).revision
    if (save % 10 === 0) await (await timed('page', `/w/${id}/score`))?.arrayBuffer()
    await pause(400 + Math.random() * 200)
  }
}

/** Listens to the stream of changes, and asks how its workout is whenever it changed. */
async function listener(number: number): Promise<void> {
  const id = await make(`Listened to ${number}`)
  while (going()) {
    const halt = new AbortController()
    const stop = setTimeout(() => halt.abort(), Math.min(end - Date.now(), 5000 + Math.random() * 60_000))
    const stream = await fetch(`${url}/api/events`, { signal: halt.signal }).catch(() => null)
    const reader = stream?.body?.getReader()
    for (let read = await reader?.read().catch(() => null); read?.value; read = await reader?.read().catch(() => null))
      if (new TextDecoder().decode(read.value).includes(id)) await timed('progress', `/api/workouts/${id}/progress`)
    clearTimeout(stop)
  }
}

/** Sends a short film every fifteen seconds, each with bytes of its own. */
async function sender(number: number): Promise<void> {
  const id = await make(`Sent to ${number}`)
  const tus = { 'tus-resumable': '1.0.0' }
  while (going()) {
    const skipped = randomBytes(256)
    skipped.writeUInt32BE(skipped.length, 0)
    skipped.write('free', 4, 'latin1')
    const bytes = new Uint8Array(Buffer.concat([clip, skipped]))
    const encoded = (text: string): string => Buffer.from(text).toString('base64')
    const metadata = `filename ${encoded('load.mp4')},workoutId ${encoded(id)}`
    const headers = { ...tus, 'upload-length': String(bytes.length), 'upload-metadata': metadata }
    const begun = await timed('begin upload', '/api/uploads', { method: 'POST', headers })
    const place = new URL(begun?.headers.get('location') ?? '', url).pathname
    const patch = { ...tus, 'content-type': 'application/offset+octet-stream', 'upload-offset': '0' }
    if (begun) await timed('upload', place, { method: 'PATCH', headers: patch, body: bytes })
    await pause(15_000)
  }
}

/** Resident memory of the server, in megabytes. */
function memoryMb(): number {
  for (const name of readdirSync('/proc').filter((one) => /^\d+$/.test(one)))
    try {
      if (!readFileSync(`/proc/${name}/cmdline`, 'utf8').includes('src/server/serve.ts')) continue
      const [, pages = '0'] = readFileSync(`/proc/${name}/statm`, 'utf8').split(' ')
      return (Number(pages) * 4096) / 1e6
    } catch {
      /* gone meanwhile */
    }
  return 0
}

const count = Number(clients)
const share = (part: number): number => Math.round(count * part)
const all = [
  ...Array.from({ length: share(0.6) }, (_, number) => writer(number)),
  ...Array.from({ length: share(0.3) }, (_, number) => listener(number)),
  ...Array.from({ length: count - share(0.6) - share(0.3) }, (_, number) => sender(number)),
]
const memory: number[] = []
while (going()) {
  await pause(Math.min(60_000, end - Date.now() + 10))
  memory.push(memoryMb())
  process.stdout.write(`minute ${memory.length}: ${memory.at(-1)?.toFixed(0)} MB, ${errors.length} errors\n`)
}
await Promise.all(all)
for (const [what, costs] of times) {
  const sorted = costs.sort((one, other) => one - other)
  const at = (part: number): string => (sorted[Math.floor((sorted.length - 1) * part)] ?? 0).toFixed(0)
  process.stdout.write(
    `${what.padEnd(14)} ${String(sorted.length).padStart(7)} times, median ${at(0.5)} ms, 99 in 100 below ${at(0.99)} ms\n`,
  )
}
const half = Math.ceil(memory.length / 2)
const mean = (part: number[]): number => part.reduce((sum, one) => sum + one, 0) / Math.max(1, part.length)
process.stdout.write(
  `${count} clients, ${minutes} min: ${errors.length} errors; memory of the second half to the first ` +
    `${(mean(memory.slice(half)) / mean(memory.slice(0, half))).toFixed(2)}\n`,
)
for (const error of [...new Set(errors)].slice(0, 10)) process.stdout.write(`  ${error}\n`)
for (const id of made)
  await fetch(`${url}/api/workouts/${id}/removed`, {
    method: 'PUT',
    headers: json,
    body: JSON.stringify({ removed: true }),
  })
