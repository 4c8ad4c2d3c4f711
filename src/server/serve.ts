// The server process: Next behind a gate that every request passes and every answer carries the headers of.
import { randomBytes } from 'node:crypto'
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import next from 'next'
import { STRAP_PORT } from '../core/floor/heart'
import { theDoor } from './access/door'
import { DEVICE_HEADER, entryFor, FROM_HEADER, sessionIn } from './access/entry'
import { LENGTH_HEADER } from './attachment'
import { isOwnHost } from './http'
import { workoutOfSession } from './sessions'
import { readSettings } from './settings'

const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS'])

/** What may be loaded by a page: our own, and of scripts only those that carry this answer's number used once. */
const pagePolicy = (nonce: string): string =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    // Drawn sizes and positions are attributes of elements, and the parts that draw dialogs bring style elements.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "media-src 'self' blob:",
    "font-src 'self'",
    // Besides us, the simulated heart-rate strap on the machine of whoever looks.
    `connect-src 'self' ws://127.0.0.1:${STRAP_PORT}`,
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ')
/** What is no page loads nothing, except that a worker's script loads its parts. */
const DATA_POLICY = "default-src 'none'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'"
const SCRIPT_POLICY = `${DATA_POLICY}; script-src 'self'`

function policyFor(path: string, nonce: string): string {
  if (path.startsWith('/_next/')) return SCRIPT_POLICY
  return path.startsWith('/api/') ? DATA_POLICY : pagePolicy(nonce)
}

const HEADERS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'camera=(), microphone=(self), geolocation=()',
}

/** @returns why a request is refused before anything looks at it, or null. */
function refusal(request: IncomingMessage): { status: number; text: string } | null {
  if (!METHODS.has(request.method ?? '')) return { status: 405, text: 'This method is not known here.' }
  if (!isOwnHost(request.headers.host ?? null)) return { status: 403, text: "This address is not one of Jivet's own." }
  try {
    const path = decodeURIComponent((request.url ?? '').split('?')[0] ?? '')
    if (!path.startsWith('/') || path.includes('\0')) throw new URIError('not a path')
  } catch {
    return { status: 400, text: 'This is not an address.' }
  }
  return null
}

function gate(request: IncomingMessage, response: ServerResponse): boolean {
  delete request.headers[DEVICE_HEADER]
  request.headers[FROM_HEADER] = request.socket.remoteAddress ?? ''
  for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value)
  const nonce = randomBytes(16).toString('base64')
  const policy = policyFor(request.url ?? '', nonce)
  response.setHeader('content-security-policy', policy)
  // Next reads the number for its own scripts from here, the layout for ours.
  request.headers['content-security-policy'] = policy
  request.headers['x-nonce'] = nonce
  const refused = refusal(request)
  if (!refused) return true
  response.writeHead(refused.status, { 'content-type': 'text/plain; charset=utf-8', connection: 'close' })
  response.end(request.method === 'HEAD' ? undefined : refused.text)
  return false
}

/** Lets in whoever has a pass, where other machines reach us. @returns false where the request was answered here. */
async function admitted(request: IncomingMessage, response: ServerResponse): Promise<boolean> {
  const door = await theDoor()
  if (!door) return true
  const path = decodeURIComponent((request.url ?? '').split('?')[0] ?? '')
  const pass = door.passes.passIn(request.headers.cookie, Date.now())
  if (pass?.kind === 'device') request.headers[DEVICE_HEADER] = pass.workoutId
  const session = pass?.kind === 'device' ? sessionIn(path) : null
  const sessionOf = session ? await workoutOfSession(session) : null
  const entry = entryFor({ method: request.method ?? '', path, pass }, sessionOf)
  switch (entry) {
    case 'in':
      return true
    case 'ask':
      if (path.startsWith('/api/')) answer(response, 401, 'The passphrase is needed first.')
      else redirect(response, `/enter?to=${encodeURIComponent(path)}`)
      return false
    case 'pair': {
      const workoutId = door.pairing.end(path.slice('/pair/'.length), performance.now())
      if (!workoutId) answer(response, 403, 'This code was used, or is too old. Show a new one on the computer.')
      else {
        response.setHeader('set-cookie', door.passes.cookieFor({ kind: 'device', workoutId }, Date.now()))
        redirect(response, `/w/${workoutId}/floor`)
      }
      return false
    }
    case 'shut':
      answer(response, 403, 'This device is paired to one floor, and to nothing else.')
      return false
  }
}

function answer(response: ServerResponse, status: number, text: string): void {
  response.writeHead(status, { 'content-type': 'text/plain; charset=utf-8' })
  response.end(text)
}

function redirect(response: ServerResponse, to: string): void {
  response.writeHead(303, { location: to, 'cache-control': 'no-store' })
  response.end()
}

/** Puts the length of a download back, which Next took off. */
function keepLength(response: ServerResponse): void {
  const writeHead = response.writeHead.bind(response) as (...args: unknown[]) => ServerResponse
  response.writeHead = (...args: unknown[]) => {
    const length = response.getHeader(LENGTH_HEADER)
    response.removeHeader(LENGTH_HEADER)
    if (length !== undefined) response.setHeader('content-length', length)
    return writeHead(...args)
  }
}

const { PORT, HOST } = readSettings()
const app = next({ dev: false, dir: process.cwd(), hostname: HOST, port: PORT })
const handle = app.getRequestHandler()
await app.prepare()
// The passphrase is made into a key before anybody asks.
await theDoor()

const server = createServer((request, response) => {
  if (!gate(request, response)) return
  const answered = async (): Promise<void> => {
    if (!(await admitted(request, response))) return
    keepLength(response)
    await handle(request, response)
  }
  answered().catch((error: Error) => {
    console.error(error)
    if (!response.headersSent) response.writeHead(500)
    response.end()
  })
})
// An upload of a day's footage takes its time; only the head of a request is waited for no longer than this.
server.requestTimeout = 0
server.headersTimeout = 20_000
// A connection is kept longer than any client that keeps one open would wait: none closes as it is used again.
server.keepAliveTimeout = 75_000
server.on('clientError', (_error, socket) => socket.end('HTTP/1.1 400 Bad Request\r\nconnection: close\r\n\r\n'))
server.listen(PORT, HOST)

function stop(): void {
  server.close(() => process.exit(0))
  server.closeAllConnections()
  setTimeout(() => process.exit(0), 2000).unref()
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
