// How soon an upload begins to be prepared while twenty renders wait, and whether each waiting job runs once.
//   JIVET_URL=http://127.0.0.1:4310 tsx bench/lane.ts   (with Jivet running)
import { asking, beginUpload, filmed, pause, placeOf, planBody, sendPiece, SHORT_PLAN, tieBody, unlike } from './client'

const url = process.env.JIVET_URL ?? 'http://127.0.0.1:4310'
const RENDERS = 20

interface Told {
  footage: { state: string } | null
  reel: { key: string }
  jobs: { kind: string; state: string; share: number }[]
}
const ask = asking(url)
const told = (id: string): Promise<Told> => ask('GET', `/api/workouts/${id}/progress`)
const make = async (title: string): Promise<string> =>
  (await ask<{ id: string }>('POST', '/api/workouts', planBody(title, SHORT_PLAN))).id
async function send(id: string, bytes: Buffer): Promise<void> {
  const place = placeOf(url, await beginUpload(url, id, 'lane.mp4', bytes.length))
  await sendPiece(place, bytes, 0)
}

// Long enough that twenty renders take minutes.
const long = filmed(60)
const made = await Promise.all(Array.from({ length: RENDERS }, (_, number) => make(`Lane ${number}`)))
for (const id of made) await send(id, unlike(long))
for (const id of made) {
  let footage = (await told(id)).footage
  for (; footage?.state !== 'ready'; footage = (await told(id)).footage) await pause(300)
  await ask('PUT', `/api/workouts/${id}/stitches`, tieBody(1, (await told(id)).reel.key))
}
for (const id of made) await ask('POST', `/api/workouts/${id}/render`)

const late = await make('Lane, late')
made.push(late)
await send(late, unlike(filmed(4)))
const sentAt = performance.now()
const begun = async (): Promise<boolean> =>
  (await told(late)).jobs.some(({ kind, state }) => kind === 'prepare' && state !== 'queued')
while (!(await begun())) await pause(50)
const begunS = (performance.now() - sentAt) / 1000
while ((await told(late)).footage?.state !== 'ready') await pause(100)
const readyS = (performance.now() - sentAt) / 1000
const waiting = await Promise.all(
  made.map(async (id) => (await told(id)).jobs.find(({ kind }) => kind === 'render')?.state),
)
process.stdout.write(
  `with ${waiting.filter((state) => state === 'queued').length} renders waiting, an upload began to be prepared after ` +
    `${begunS.toFixed(2)} s and was ready after ${readyS.toFixed(2)} s\n`,
)
for (const id of made) {
  for (const { kind, state } of (await told(id)).jobs)
    if (kind === 'render' && state !== 'done') {
      const { jobs } = await ask<{ jobs: { id: string; kind: string }[] }>('GET', `/api/workouts/${id}/progress`)
      const render = jobs.find((job) => job.kind === 'render')
      if (render) await fetch(`${url}/api/jobs/${render.id}`, { method: 'DELETE' })
    }
  await ask('PUT', `/api/workouts/${id}/removed`, JSON.stringify({ removed: true }))
}
