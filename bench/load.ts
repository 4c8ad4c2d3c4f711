// A hundred clients for ten minutes against a running Jivet: saves, uploads, streams and reads; errors, times and the
// server's memory, minute by minute.
//   JIVET_URL=http://127.0.0.1:4310 tsx bench/load.ts [MINUTES] [CLIENTS]
import { randomUUID } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { beginUpload, filmed, JSON_TYPE, pause, placeOf, planBody, sendPiece, unlike } from './client'

const url = process.env.JIVET_URL ?? 'http://127.0.0.1:4310'
const [minutes = '10', clients = '100'] = process.argv.slice(2)
const ask = (method: string, path: string, body?: string): Promise<Response> =>
  fetch(url + path, { method, ...(body === undefined ? {} : { body, headers: JSON_TYPE }) })

const clip = filmed(2)

const errors: string[] = []
const times = new Map<string, number[]>()

async function timed(what: string, asking: () => Promise<Response>): Promise<Response | null> {
  const from = performance.now()
  const answer = await asking().catch((error: Error) => {
    errors.push(`${what}: ${error.message}`)
    return null
  })
  if (answer && !answer.ok) errors.push(`${what}: ${answer.status} ${(await answer.text()).slice(0, 120)}`)
  times.set(what, [...(times.get(what) ?? []), performance.now() - from])
  return answer?.ok ? answer : null
}

const made: string[] = []
async function make(title: string): Promise<string> {
  const body = planBody(title, 'circuit Main: 8 rounds, 20 on, 10 off\n  Jug lift; Lock-gate push; Tiller twist\n')
  const answer = await timed('make', () => ask('POST', '/api/workouts', body))
  const { id } = (await answer?.json()) as { id: string }
  made.push(id)
  return id
}

const end = Date.now() + Number(minutes) * 60_000
const going = (): boolean => Date.now() < end

/** Types a title twice a second, and reads its page now and then. */
async function writer(number: number): Promise<void> {
  const id = await make(`Load ${number}`)
  const loaded = await timed('read', () => ask('GET', `/api/workouts/${id}/score`))
  let { score, revision } = (await loaded?.json()) as { score: { title: string }; revision: number }
  for (let save = 1; going(); save++) {
    score = { ...score, title: `Load ${number}, ${save}` }
    const body = JSON.stringify({ score, revision, key: randomUUID() })
    const answer = await timed('save', () => ask('PUT', `/api/workouts/${id}/score`, body))
    if (answer) revision = ((await answer.json()) as { revision: number }).revision
    if (save % 10 === 0) await (await timed('page', () => ask('GET', `/w/${id}/score`)))?.arrayBuffer()
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
      if (new TextDecoder().decode(read.value).includes(id))
        await timed('progress', () => ask('GET', `/api/workouts/${id}/progress`))
    clearTimeout(stop)
  }
}

/** Sends a short film every fifteen seconds, each with bytes of its own. */
async function sender(number: number): Promise<void> {
  const id = await make(`Sent to ${number}`)
  while (going()) {
    const bytes = unlike(clip)
    const begun = await timed('begin upload', () => beginUpload(url, id, 'load.mp4', bytes.length))
    if (begun) await timed('upload', () => sendPiece(placeOf(url, begun), bytes, 0))
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
for (const id of made) await ask('PUT', `/api/workouts/${id}/removed`, JSON.stringify({ removed: true }))
