// The server process: Next behind a gate that every request passes and every answer carries the headers of.
import { randomBytes } from 'node:crypto'
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import next from 'next'
import { STRAP_PORT } from '../core/floor/heart'
import { theDoor, type Door } from './access/door'
import { DEVICE_HEADER, entryFor, FROM_HEADER, PASS_HEADER, sessionIn, type Pass } from './access/entry'
import { plainPath, plainTarget } from './access/plainPath'
import { beginPass, deviceName, isGood } from './access/register'
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
function refusal(request: IncomingMessage, path: string | null): { status: number; text: string } | null {
  if (!METHODS.has(request.method ?? '')) return { status: 405, text: 'This method is not known here.' }
  if (!isOwnHost(request.headers.host ?? null)) return { status: 403, text: "This address is not one of Jivet's own." }
  if (path === null) return { status: 400, text: 'This is not an address.' }
  return null
}

/** What Next tells itself between its own processes: it means nothing where it comes from outside. */
const INNER_HEADER = /^x-(?:middleware|invoke|matched|nextjs|now|jivet)-/

/**
 * Gives every answer its headers, and refuses what is no request of ours.
 * @returns the path that was asked for, which Next is given in the same form; null where the request was answered here.
 */
function gate(request: IncomingMessage, response: ServerResponse): string | null {
  for (const name of Object.keys(request.headers)) if (INNER_HEADER.test(name)) delete request.headers[name]
  request.headers[FROM_HEADER] = request.socket.remoteAddress ?? ''
  const target = request.url ?? ''
  const path = plainPath(target)
  if (path !== null) request.url = plainTarget(path, target)
  for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value)
  const nonce = randomBytes(16).toString('base64')
  const policy = policyFor(path ?? '', nonce)
  response.setHeader('content-security-policy', policy)
  // Next reads the number for its own scripts from here, the layout for ours.
  request.headers['content-security-policy'] = policy
  request.headers['x-nonce'] = nonce
  const refused = refusal(request, path)
  if (!refused) return path
  response.writeHead(refused.status, { 'content-type': 'text/plain; charset=utf-8', connection: 'close' })
  response.end(request.method === 'HEAD' ? undefined : refused.text)
  return null
}

/** Lets in whoever has a pass, where other machines reach us. @returns false where the request was answered here. */
async function admitted(request: IncomingMessage, response: ServerResponse, path: string): Promise<boolean> {
  const door = await theDoor()
  if (!door) return true
  const carried = door.passes.passIn(request.headers.cookie, Date.now())
  const pass = carried && (await isGood(carried)) ? carried : null
  if (pass) request.headers[PASS_HEADER] = pass.id
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
    case 'pair':
      await paired(door, { request, response, code: path.slice('/pair/'.length), pass })
      return false
    case 'shut':
      answer(response, 403, 'This device is paired to one floor, and to nothing else.')
      return false
  }
}

interface Pairer {
  request: IncomingMessage
  response: ServerResponse
  code: string
  pass: Pass | null
}

/** Gives a device its pass for the code it read. The owner's own browser stays the owner's, and uses no code up. */
async function paired(door: Door, { request, response, code, pass }: Pairer): Promise<void> {
  const now = performance.now()
  const workoutId = pass?.kind === 'owner' ? door.pairing.workoutOf(code, now) : door.pairing.end(code, now)
  if (!workoutId) {
    answer(response, 403, 'This code was used, or is too old. Show a new one on the computer.')
    return
  }
  if (pass?.kind !== 'owner') {
    const device = await beginPass(workoutId, deviceName(request.headers['user-agent'] ?? ''))
    response.setHeader('set-cookie', door.passes.cookieFor(device, Date.now()))
  }
  redirect(response, `/w/${workoutId}/floor`)
}

/** Answers without reading what else was sent. */
function answer(response: ServerResponse, status: number, text: string): void {
  response.writeHead(status, { 'content-type': 'text/plain; charset=utf-8', connection: 'close' })
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

/** What is streamed to a file may take as long as its network does. */
const STREAMED = /^\/api\/(?:uploads|music|recordings)(?:\/|$)/
const BODY_MS = 60_000

/** Ends a request whose body has not come within a minute. */
function limitBody(request: IncomingMessage, path: string): void {
  if (request.method === 'GET' || request.method === 'HEAD' || STREAMED.test(path)) return
  const limit = setTimeout(() => request.destroy(), BODY_MS)
  request.once('end', () => clearTimeout(limit)).once('close', () => clearTimeout(limit))
}

/** A page takes a handful; more than a household has is somebody who holds them. */
const MOST_CONNECTIONS = 512

const { PORT, HOST } = readSettings()
const app = next({ dev: false, dir: process.cwd(), hostname: HOST, port: PORT })
const handle = app.getRequestHandler()
await app.prepare()
// The passphrase is made into a key before anybody asks.
await theDoor()

const server = createServer((request, response) => {
  const path = gate(request, response)
  if (path === null) return
  limitBody(request, path)
  const answered = async (): Promise<void> => {
    if (!(await admitted(request, response, path))) return
    keepLength(response)
    await handle(request, response)
  }
  answered().catch((error: Error) => {
    console.error(error)
    if (!response.headersSent) response.writeHead(500)
    response.end()
  })
})
// An upload of a day's footage takes its time; the head of any request is waited for no longer than this.
server.requestTimeout = 0
server.maxConnections = MOST_CONNECTIONS
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
