// Serves a stored file with byte ranges, which a browser needs to seek in a video.
import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { ReadableStream } from 'node:stream/web'
import parseRange from 'range-parser'
import { Problem } from '../core/problem'
import { asAttachment, LENGTH_HEADER } from './attachment'

export interface Serving {
  type: string
  /** Offers the file as a download under this name. */
  download?: string
}

/** @throws Problem `not-found` when the file is gone. */
export async function serveFile(request: Request, path: string, { type, download }: Serving): Promise<Response> {
  const { size } = await stat(path).catch(() => {
    throw new Problem({ code: 'not-found', what: 'stored file' })
  })
  const headers = new Headers({
    'content-type': type,
    'accept-ranges': 'bytes',
    'cache-control': 'private, max-age=3600',
    'x-content-type-options': 'nosniff',
  })
  if (download) headers.set('content-disposition', asAttachment(download))
  const asked = request.headers.get('range')
  const ranges = asked ? parseRange(size, asked) : null
  if (ranges === -1) return new Response(null, { status: 416, headers: { 'content-range': `bytes */${size}` } })
  const range = Array.isArray(ranges) && ranges.type === 'bytes' && ranges.length === 1 ? ranges[0] : undefined
  const { start, end } = range ?? { start: 0, end: size - 1 }
  headers.set('content-length', String(end - start + 1))
  headers.set(LENGTH_HEADER, String(end - start + 1))
  if (range) headers.set('content-range', `bytes ${start}-${end}/${size}`)
  const status = range ? 206 : 200
  // Nobody would read what is opened for a HEAD, nor close it.
  if (request.method === 'HEAD') return new Response(null, { status, headers })
  // `Readable.toWeb` throws past everybody when a browser breaks a download off; an iterator is simply ended.
  const body = ReadableStream.from(bytesOf(path, start, end))
  return new Response(body as globalThis.ReadableStream<Uint8Array>, { status, headers })
}

/** Opened once somebody reads: what fails before that, nobody would hear of. @param end the last byte. */
async function* bytesOf(path: string, start: number, end: number): AsyncGenerator<Uint8Array> {
  yield* createReadStream(path, { start, end }) as AsyncIterable<Uint8Array>
}
