// What every route handler shares: who may call, and how a problem becomes an answer.
import { isIP } from 'node:net'
import { z } from 'zod'
import { Problem, type ProblemCode } from '../core/problem'
import { issueToProblem } from '../core/read/workoutFile'
import { refuseUnstorable } from '../core/text'
import { isLoopback, readSettings, type Settings } from './settings'
import { knownProblem } from './store'

const STATUS: Partial<Record<ProblemCode, number>> = {
  'not-found': 404,
  'no-file': 404,
  'move-unknown': 404,
  'too-large': 413,
  stale: 409,
  'move-exists': 409,
  'footage-not-ready': 409,
  'already-rendering': 409,
  'not-hdr': 409,
  'already-publishing': 409,
  'published-already': 409,
  'host-away': 503,
  'host-refused': 422,
  'session-under-way': 409,
  'session-over': 409,
  'ahead-of-time': 422,
  'floor-empty': 422,
  'passphrase-wrong': 403,
  'tries-too-many': 429,
  'only-here': 409,
  busy: 503,
  'database-away': 503,
  'store-away': 503,
  'store-of-another': 503,
  'sweep-too-large': 409,
  'claim-lost': 409,
  'nothing-to-try': 409,
  'reel-changed': 409,
  'not-together': 422,
  cancelled: 409,
  'foreign-host': 403,
  'foreign-origin': 403,
  'not-video': 422,
  'empty-file': 422,
  'no-picture': 422,
  'no-sound': 422,
  'broken-end': 422,
  'no-frames': 422,
  'upload-gone': 422,
  'upload-differs': 422,
  'footage-too-long': 422,
  'picture-too-large': 422,
  'not-stitched': 422,
  'nothing-said': 422,
  'no-music': 422,
  'music-too-long': 422,
  'music-in-use': 409,
  'in-use': 409,
  'tie-crosses': 422,
  'tie-outside': 422,
  'tie-twice': 422,
  'disk-full': 507,
  'tool-failed': 500,
  'tool-missing': 500,
  'captions-unreadable': 422,
  'font-missing': 500,
  'model-missing': 500,
  'model-damaged': 500,
  'package-missing': 500,
  unexpected: 500,
}
/** Whatever else is wrong is wrong with what was sent. */
const BAD_REQUEST = 400

/**
 * Our own addresses: loopback by its names, at our port; and any bare address, where other machines are let in. A page
 * under a name of somebody else's must not reach us, whatever that name points to.
 */
export function isOwnHost(host: string | null, { PORT: port, HOST }: Where = readSettings()): boolean {
  if (host === null) return false
  const isAt = (name: string): boolean => host === `${name}:${port}` || (port === 80 && host === name)
  if (['127.0.0.1', 'localhost', '[::1]'].some(isAt)) return true
  if (isLoopback(HOST)) return false
  const bare = host.replace(/:\d+$/, '').replace(/^\[(.*)\]$/, '$1')
  return isIP(bare) !== 0 && isAt(bare.includes(':') ? `[${bare}]` : bare)
}
type Where = Pick<Settings, 'PORT' | 'HOST'>

/**
 * A page of another origin, even of another port of this machine, gets nothing: neither an answer nor the work that an
 * answer takes.
 * @throws Problem `foreign-host` for a Host that is not ours, `foreign-origin` for a page that is not the Host's own.
 */
export function guard(request: Request): void {
  const host = request.headers.get('host')
  if (!isOwnHost(host)) throw new Problem({ code: 'foreign-host' })
  const origin = request.headers.get('origin')
  const site = request.headers.get('sec-fetch-site')
  const isForeign = (origin !== null && origin !== `http://${host}`) || site === 'cross-site' || site === 'same-site'
  if (isForeign) throw new Problem({ code: 'foreign-origin' })
}

type Handler<P> = (request: Request, params: P) => Promise<Response>

/** Wraps a handler: guards it, hands it its parameters, and turns problems into JSON with the fitting status. */
export function route<P = Record<string, never>>(
  handler: Handler<P>,
): (request: Request, context: { params: Promise<P> }) => Promise<Response> {
  return async (request, context) => {
    try {
      guard(request)
      // What no database takes is refused here, for every question of an address.
      refuseUnstorable([...new URL(request.url).searchParams])
      return await handler(request, await context.params)
    } catch (error) {
      return problemResponse(error)
    }
  }
}

export function problemResponse(thrown: unknown): Response {
  const known = knownProblem(thrown)
  if (!(known instanceof Problem)) console.error(known)
  const { fact, message, place } = known instanceof Problem ? known : new Problem({ code: 'unexpected' })
  // What a tool said last is for the log, not for the page.
  const shown = fact.code === 'tool-failed' ? null : place
  return Response.json(
    { problem: { code: fact.code, fact, message, place: shown } },
    { status: STATUS[fact.code] ?? BAD_REQUEST },
  )
}

const MOST_JSON_BYTES = 32 * 1024 * 1024

/**
 * Reads a JSON body through a schema.
 * @param most bytes; what is longer is read no further.
 * @throws Problem `bad-json`, `bad-document`, `unstorable-text` or `too-large`.
 */
export async function readBody<T>(request: Request, schema: z.ZodType<T>, most = MOST_JSON_BYTES): Promise<T> {
  const text = new TextDecoder().decode(await readBytes(request, most))
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch {
    throw new Problem({ code: 'bad-json', reason: 'it does not parse' })
  }
  refuseUnstorable(data)
  const read = schema.safeParse(data)
  if (!read.success) throw issueToProblem(read.error, 'request')
  return read.data
}

/** Reads what a URL asks for through a schema. @throws Problem `bad-document`. */
export function readQuery<T>(request: Request, schema: z.ZodType<T>): T {
  const read = schema.safeParse(Object.fromEntries(new URL(request.url).searchParams))
  if (!read.success) throw issueToProblem(read.error, 'request')
  return read.data
}

async function readBytes(request: Request, most: number): Promise<Uint8Array> {
  const chunks: Uint8Array[] = []
  for await (const chunk of bodyOf(request, most)) chunks.push(chunk)
  return Buffer.concat(chunks)
}

/**
 * A body as it comes. Whatever length is announced, or none: it is counted.
 * @throws Problem `too-large`.
 */
export async function* bodyOf(request: Request, most: number): AsyncGenerator<Uint8Array> {
  const tooLarge = (): Problem => new Problem({ code: 'too-large', megabytes: Math.ceil(most / (1024 * 1024)) })
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLarge()
  const reader = request.body?.getReader()
  let bytes = 0
  for (let read = await reader?.read(); read?.value; read = await reader?.read()) {
    bytes += read.value.length
    if (bytes > most) {
      void reader?.cancel().catch(() => {})
      throw tooLarge()
    }
    yield read.value
  }
}

const uuid = z.uuid()

/** An id from a path. @throws Problem `not-found` when it is none. */
export function idFrom(text: string): string {
  if (!uuid.safeParse(text).success) throw new Problem({ code: 'not-found', what: 'thing' })
  return text
}
