// SIMULATED video host: stands in for a place where videos are published, and says so on every page. A small server of
// its own: `npm run host`. It takes uploads that can be resumed, has limits, works at a video for a while, rejects with
// reasons, and can be told that its network breaks.
//   PORT (4330), JIVET_HOST_FOLDER (where videos are kept; default: a folder that goes with it),
//   JIVET_HOST_PROCESS_MS (3000), JIVET_HOST_BREAKS (0 to 1: the share of requests that break off)
import { createReadStream, mkdirSync, mkdtempSync, rmSync, statSync } from 'node:fs'
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { text } from 'node:stream/consumers'
import { FileStore } from '@tus/file-store'
import { Server as TusServer } from '@tus/server'
import parseRange from 'range-parser'
import { z } from 'zod'
import { STAND_IN_PORT, type HostVideo } from '../../src/core/publish/host'
import { listPage, watchPage } from './pages'
import { chaptersIn, LIMITS, Refused, retentionOf, Videos, type Video } from './videos'

const port = Number(process.env.PORT ?? STAND_IN_PORT)
const kept = process.env.JIVET_HOST_FOLDER
const folder = kept ?? mkdtempSync(join(tmpdir(), 'jivet-host-'))
mkdirSync(folder, { recursive: true })
const videos = new Videos(folder, Number(process.env.JIVET_HOST_PROCESS_MS ?? 3000))
let breaks = Number(process.env.JIVET_HOST_BREAKS ?? 0)

const uploads = new TusServer({
  path: '/api/uploads',
  datastore: new FileStore({ directory: folder }),
  relativeLocation: true,
  maxSize: LIMITS.bytes,
  // One video is one upload, wherever it is gone on with.
  namingFunction: (_request, metadata) => videos.find(metadata?.video ?? '').id,
  onUploadCreate: async (_request, upload) => {
    const video = videos.find(upload.id)
    if (video.state !== 'receiving') throw { status_code: 409, body: 'This video is here already.' }
    if (upload.size !== video.bytes) throw { status_code: 400, body: 'The video was said to be of another size.' }
    return {}
  },
  onUploadFinish: async (_request, upload) => {
    videos.received(upload.id)
    return {}
  },
})

const beginSchema = z.object({ key: z.string().min(8), title: z.string(), description: z.string(), bytes: z.number() })

const told = (video: Video): HostVideo => ({
  ...{ id: video.id, state: video.state, reason: video.reason },
  ...{ page: `/watch/${video.id}`, chapters: chaptersIn(video).length, hasCaptions: video.captions !== '' },
})

type Answer = (request: IncomingMessage, response: ServerResponse, id: string) => Promise<void> | void
const json = (response: ServerResponse, data: unknown, status = 200): void =>
  void response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(data))
const html = (response: ServerResponse, page: string): void =>
  void response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page)

const ROUTES: [method: string, path: RegExp, answer: Answer][] = [
  ['GET', /^\/$/, (_request, response) => html(response, listPage(videos.list()))],
  ['GET', /^\/watch\/([\w-]+)$/, (_request, response, id) => html(response, watchPage(videos.find(id)))],
  [
    'POST',
    /^\/watch\/([\w-]+)\/comments$/,
    async (request, response, id) => {
      const form = new URLSearchParams(await text(request))
      videos.comment(id, form.get('name') ?? '', form.get('text') ?? '')
      response.writeHead(303, { location: `/watch/${id}` }).end()
    },
  ],
  ['GET', /^\/file\/([\w-]+)$/, (request, response, id) => sendFile(request, response, videos.find(id))],
  [
    'GET',
    /^\/captions\/([\w-]+)$/,
    (_request, response, id) =>
      void response.writeHead(200, { 'content-type': 'text/vtt' }).end(videos.find(id).captions),
  ],
  ['GET', /^\/api\/limits$/, (_request, response) => json(response, { ...LIMITS, simulated: true })],
  [
    'POST',
    /^\/api\/videos$/,
    async (request, response) => json(response, told(videos.begin(beginSchema.parse(JSON.parse(await text(request)))))),
  ],
  ['GET', /^\/api\/videos$/, (_request, response) => json(response, videos.list().map(told))],
  ['GET', /^\/api\/videos\/([\w-]+)$/, (_request, response, id) => json(response, told(videos.find(id)))],
  [
    'PUT',
    /^\/api\/videos\/([\w-]+)\/captions$/,
    async (request, response, id) => {
      await videos.caption(id, await text(request))
      json(response, told(videos.find(id)))
    },
  ],
  ['GET', /^\/api\/videos\/([\w-]+)\/comments$/, (_request, response, id) => json(response, videos.find(id).comments)],
  [
    'GET',
    /^\/api\/videos\/([\w-]+)\/retention$/,
    (_request, response, id) => json(response, { simulated: true, shares: retentionOf(videos.find(id)) }),
  ],
  [
    'PUT',
    /^\/api\/simulated\/network$/,
    async (request, response) => {
      breaks = z.object({ breaks: z.number().min(0).max(1) }).parse(JSON.parse(await text(request))).breaks
      json(response, { breaks })
    },
  ],
]

async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
  const path = (request.url ?? '/').split('?')[0] ?? '/'
  if (path.startsWith('/api/') && !path.startsWith('/api/simulated/') && Math.random() < breaks)
    return breakOff(request)
  if (path.startsWith('/api/uploads')) return void (await uploads.handle(request, response))
  for (const [method, pattern, respond] of ROUTES) {
    const match = request.method === method ? pattern.exec(path) : null
    if (match) return respond(request, response, match[1] ?? '')
  }
  json(response, { reason: 'There is nothing here.' }, 404)
}

/** At once, or in the middle of what is sent. */
function breakOff(request: IncomingMessage): void {
  let left = Math.random() < 0.4 ? 0 : Math.random() * 200_000
  if (!left || request.method === 'GET') return void request.socket.destroy()
  request.on('data', (chunk: Buffer) => {
    left -= chunk.length
    if (left < 0) request.socket.destroy()
  })
  request.on('end', () => request.socket.destroy())
}

function sendFile(request: IncomingMessage, response: ServerResponse, { id, state }: Video): void {
  if (state !== 'ready') throw new Refused('This video cannot be watched.')
  const { size } = statSync(videos.pathOf(id))
  const ranges = request.headers.range ? parseRange(size, request.headers.range) : null
  const range = Array.isArray(ranges) ? ranges[0] : undefined
  const { start, end } = range ?? { start: 0, end: size - 1 }
  response.writeHead(range ? 206 : 200, {
    ...{ 'content-type': 'video/mp4', 'accept-ranges': 'bytes', 'content-length': end - start + 1 },
    ...(range ? { 'content-range': `bytes ${start}-${end}/${size}` } : {}),
  })
  createReadStream(videos.pathOf(id), { start, end }).pipe(response)
}

const server = createServer((request, response) => {
  void answer(request, response).catch((error: Error) => {
    const status =
      error instanceof Refused ? 422 : error instanceof z.ZodError || error instanceof SyntaxError ? 400 : 500
    if (status === 500) console.error(error)
    if (!response.headersSent) json(response, { reason: error.message }, status)
  })
})
server.on('error', (error) => {
  console.error(`The simulated host cannot be had: ${error.message}`)
  process.exit(1)
})
server.listen(port, '127.0.0.1', () => console.log(`SIMULATED video host at http://127.0.0.1:${port}`))

for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    server.closeAllConnections()
    server.close(() => {
      if (!kept) rmSync(folder, { recursive: true, force: true })
      process.exit(0)
    })
  })
