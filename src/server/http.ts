// What every route handler shares: who may call, and how a problem becomes an answer.
import { z } from 'zod'
import { Problem, type ProblemCode } from '../core/problem'
import { issueToProblem } from '../core/read/workoutFile'
import { readSettings } from './settings'
import { knownProblem } from './store'

const STATUS: Record<ProblemCode, number> = {
  'bad-json': 400,
  'bad-document': 400,
  'bad-header': 400,
  'bad-cell': 400,
  'empty-plan': 400,
  'too-long': 400,
  'too-many': 400,
  'not-video': 422,
  'empty-file': 422,
  'no-picture': 422,
  'no-sound': 422,
  'broken-end': 422,
  'too-large': 413,
  'bad-name': 400,
  'not-found': 404,
  stale: 409,
  conflict: 409,
  forbidden: 403,
  'bad-request': 400,
  'disk-full': 507,
  'tool-failed': 500,
  'tool-missing': 500,
  'not-stitched': 422,
  cancelled: 409,
  busy: 409,
}

/** Our own addresses: loopback by its names, at our port. A page under any other name must not reach us. */
export function isOwnHost(host: string | null, port = readSettings().PORT): boolean {
  return (
    host !== null &&
    ['127.0.0.1', 'localhost', '[::1]'].some((name) => host === `${name}:${port}` || (port === 80 && host === name))
  )
}

/** @throws Problem `forbidden` for a foreign Host, or for a foreign Origin on anything that changes state. */
export function guard(request: Request): void {
  const host = request.headers.get('host')
  if (!isOwnHost(host)) throw new Problem('forbidden', "This address is not one of Jivet's own.")
  if (request.method === 'GET' || request.method === 'HEAD') return
  const origin = request.headers.get('origin')
  const foreign = origin !== null && !(origin.startsWith('http://') && isOwnHost(origin.slice('http://'.length)))
  if (foreign || request.headers.get('sec-fetch-site') === 'cross-site')
    throw new Problem('forbidden', 'Another site asked for this change, so it was refused.')
}

type Handler<P> = (request: Request, params: P) => Promise<Response>

/** Wraps a handler: guards it, hands it its parameters, and turns problems into JSON with the fitting status. */
export function route<P = Record<string, never>>(
  handler: Handler<P>,
): (request: Request, context: { params: Promise<P> }) => Promise<Response> {
  return async (request, context) => {
    try {
      guard(request)
      return await handler(request, await context.params)
    } catch (error) {
      return problemResponse(error)
    }
  }
}

export function problemResponse(thrown: unknown): Response {
  const error = knownProblem(thrown)
  if (error instanceof Problem) {
    return Response.json(
      {
        problem: { code: error.code, message: error.message, place: error.code === 'tool-failed' ? null : error.place },
      },
      { status: STATUS[error.code] },
    )
  }
  console.error(error)
  return Response.json(
    {
      problem: {
        code: 'tool-failed',
        message: 'Something went wrong on the server. Nothing was changed; try again.',
        place: null,
      },
    },
    { status: 500 },
  )
}

const MOST_JSON_BYTES = 32 * 1024 * 1024

/** Reads a JSON body through a schema. @throws Problem `bad-json`, `bad-document` or `too-large`. */
export async function readBody<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  if (Number(request.headers.get('content-length') ?? 0) > MOST_JSON_BYTES)
    throw new Problem('too-large', 'This is larger than 32 MB.')
  let data: unknown
  try {
    data = await request.json()
  } catch {
    throw new Problem('bad-json', 'The request is not JSON.')
  }
  const read = schema.safeParse(data)
  if (!read.success) throw issueToProblem(read.error, 'request')
  return read.data
}

const uuid = z.uuid()

/** An id from a path. @throws Problem `not-found` when it is none. */
export function idFrom(text: string): string {
  if (!uuid.safeParse(text).success) throw new Problem('not-found', 'There is no such thing here.')
  return text
}
