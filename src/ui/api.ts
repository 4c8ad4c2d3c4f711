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

/** @throws CallError with the server's sentence, or with code `offline` when it does not answer. */
export async function call<T>(method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown): Promise<T> {
  const response = await fetch(path, {
    method,
    ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
  }).catch(() => {
    throw new CallError('offline', 'The server does not answer. Is it still running?')
  })
  if (response.status === 204 || response.status === 202) return undefined as T
  const data = (await response.json().catch(() => null)) as Answer | null
  if (!response.ok) {
    const { code = 'unexpected', fact, message = 'The server gave no reason.', place } = data?.problem ?? {}
    const line = place && /^line /.test(place) ? `${place[0]?.toUpperCase()}${place.slice(1)}: ` : ''
    throw new CallError(code, `${line}${message}`, fact)
  }
  return data as T
}
