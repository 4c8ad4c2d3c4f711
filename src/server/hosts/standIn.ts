// The simulated host of `npm run host`.
import { createReadStream } from 'node:fs'
import { Upload } from 'tus-js-client'
import { z } from 'zod'
import { Problem } from '../../core/problem'
import { hostCommentSchema, hostLimitsSchema, hostVideoSchema, type HostVideo } from '../../core/publish/host'
import type { Ms } from '../../core/units'
import { readSettings } from '../settings'
import type { VideoHost } from './host'

const NAME = 'Towpath'
const base = (): string => readSettings().JIVET_HOST_URL.replace(/\/$/, '')
/** A host that says nothing for so long is away. */
const PATIENCE_MS: Ms = 10_000
/** A piece that is lost is sent again; small enough for a network that breaks. */
const PIECE_BYTES = 8 * 1024 * 1024
const RETRIES_MS: readonly Ms[] = [200, 500, 1000, 2000, 4000]

/** Once more where the network breaks: nothing that is asked of this host does harm twice. */
async function fetchAgain(address: string, init: RequestInit & { signal: AbortSignal }, tries = 3): Promise<Response> {
  const signal = AbortSignal.any([init.signal, AbortSignal.timeout(PATIENCE_MS)])
  try {
    return await fetch(address, { ...init, signal })
  } catch {
    init.signal.throwIfAborted()
    if (tries > 1 && !signal.aborted) return fetchAgain(address, init, tries - 1)
    throw new Problem({ code: 'host-away', name: NAME })
  }
}

async function ask<T>(schema: z.ZodType<T>, path: string, init: RequestInit & { signal: AbortSignal }): Promise<T> {
  const answer = await fetchAgain(base() + path, init)
  const data: unknown = await answer.json().catch(() => null)
  if (answer.ok) {
    const read = schema.safeParse(data)
    if (read.success) return read.data
  }
  if (answer.status >= 500 || answer.ok) throw new Problem({ code: 'host-away', name: NAME })
  const reason = z.object({ reason: z.string() }).safeParse(data).data?.reason ?? `answer ${answer.status}`
  throw new Problem({ code: 'host-refused', name: NAME, reason })
}

const json = (method: 'POST' | 'PUT', data: unknown, signal: AbortSignal): RequestInit & { signal: AbortSignal } => ({
  ...{ method, signal, headers: { 'content-type': 'application/json' }, body: JSON.stringify(data) },
})
const absolute = (video: HostVideo): HostVideo => ({ ...video, page: new URL(video.page, base()).href })

export const standIn: VideoHost = {
  name: NAME,
  isSimulated: true,
  limits: (signal) => ask(hostLimitsSchema, '/api/limits', { signal }),
  begin: async (video, signal) => absolute(await ask(hostVideoSchema, '/api/videos', json('POST', video, signal))),
  video: async (id, signal) => absolute(await ask(hostVideoSchema, `/api/videos/${id}`, { signal })),
  caption: async (id, vtt, signal) => {
    await ask(hostVideoSchema, `/api/videos/${id}/captions`, { method: 'PUT', body: vtt, signal })
  },
  comments: (id, signal) => ask(z.array(hostCommentSchema), `/api/videos/${id}/comments`, { signal }),
  retention: async (id, signal) => {
    const schema = z.object({ shares: z.array(z.number()).length(100) })
    return (await ask(schema, `/api/videos/${id}/retention`, { signal })).shares
  },
  send: (id, path, { signal, onShare }) =>
    new Promise((resolve, reject) => {
      const upload = new Upload(createReadStream(path), {
        endpoint: `${base()}/api/uploads`,
        // Its address is known beforehand: where there is anything already it is gone on with.
        uploadUrl: `${base()}/api/uploads/${id}`,
        metadata: { video: id },
        chunkSize: PIECE_BYTES,
        retryDelays: [...RETRIES_MS],
        onProgress: (sent, total) => onShare(total ? sent / total : 0),
        onSuccess: () => resolve(),
        onError: () =>
          reject(signal.aborted ? new Problem({ code: 'cancelled' }) : new Problem({ code: 'host-away', name: NAME })),
      })
      signal.addEventListener('abort', () => {
        void upload.abort().catch(() => undefined)
        reject(new Problem({ code: 'cancelled' }))
      })
      upload.start()
    }),
}
