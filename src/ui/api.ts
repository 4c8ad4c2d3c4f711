// Calls to our own server: JSON in, JSON out, problems as one kind of error.
export class CallError extends Error {
  constructor(
    readonly code: string,
    message: string,
  ) {
    super(message)
  }
}

/** @throws CallError with the server's sentence, or with code `offline` when it does not answer. */
export async function call<T>(method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown): Promise<T> {
  const response = await fetch(path, {
    method,
    ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
  }).catch(() => {
    throw new CallError('offline', 'The server does not answer. Is it still running?')
  })
  if (response.status === 204) return undefined as T
  const data = (await response.json().catch(() => null)) as {
    problem?: { code: string; message: string; place: string | null }
  } | null
  if (!response.ok) {
    const place = data?.problem?.place
    throw new CallError(
      data?.problem?.code ?? 'tool-failed',
      `${place && /^line /.test(place) ? `${place[0]?.toUpperCase()}${place.slice(1)}: ` : ''}${data?.problem?.message ?? 'The server gave no reason.'}`,
    )
  }
  return data as T
}
