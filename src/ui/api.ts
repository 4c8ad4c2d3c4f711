// Calls to our own server: JSON in, JSON out, problems as one kind of error.
import type { ProblemFact } from '@/core/facts'

/** What passes by itself: asked again later, the answer may be another. */
const PASSING = new Set(['offline', 'tool-failed', 'unexpected', 'busy', 'database-away', 'disk-full'])

export class CallError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly fact?: ProblemFact,
  ) {
    super(message)
  }

  /** Whether to try again by itself makes sense. */
  get mayPass(): boolean {
    return PASSING.has(this.code)
  }
}

interface Answer {
  problem?: { code: string; fact?: ProblemFact; message: string; place: string | null }
}

/** Browsers finish no more than 64 KiB of a page that is gone. */
const MOST_OUTLIVING = 20_000

/**
 * @param outlives whether it goes on where the page is left meanwhile.
 * @throws CallError with the server's sentence, or with code `offline` when it does not answer.
 */
export async function call<T>(
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
  { outlives = false }: { outlives?: boolean } = {},
): Promise<T> {
  const text = body === undefined ? undefined : JSON.stringify(body)
  const response = await fetch(path, {
    method,
    ...(text === undefined ? {} : { body: text, headers: { 'content-type': 'application/json' } }),
    keepalive: outlives && (text?.length ?? 0) < MOST_OUTLIVING,
  }).catch(() => {
    throw new CallError('offline', 'The server does not answer. Is it still running?')
  })
  if (response.status === 204 || response.status === 202) return undefined as T
  if (!response.ok) throw await errorIn(response)
  return (await response.json().catch(() => null)) as T
}

/** Something that is no JSON. @throws as `call` does, or DOMException `AbortError`. */
export async function fetchMade(path: string, signal: AbortSignal): Promise<Response> {
  const response = await fetch(path, { signal })
  if (!response.ok) throw await errorIn(response)
  return response
}

async function errorIn(response: Response): Promise<CallError> {
  const answer = (await response.json().catch(() => null)) as Answer | null
  const { code = 'unexpected', fact, message = 'The server gave no reason.', place } = answer?.problem ?? {}
  const line = place && /^line /.test(place) ? `${place[0]?.toUpperCase()}${place.slice(1)}: ` : ''
  return new CallError(code, `${line}${message}`, fact)
}
