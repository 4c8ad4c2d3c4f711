// A SIMULATED bucket: answers what Jivet asks of one by the S3 protocol (Amazon S3 API reference, path style), from
// memory, on loopback. It knows one key's name and believes its signature.
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { createHash } from 'node:crypto'

export const BUCKET = 'deck-store'
const KEY = 'deckhand'
/** So many names to a page, so that lists have several. */
const PAGE = 3

interface Kept {
  bytes: Buffer
  changedMs: number
  /** Headers of its own that it was sent with. */
  own?: Record<string, string>
}

export class BucketServer {
  readonly files = new Map<string, Kept>()
  /** What was asked for, e.g. `GET store/ab/cd`. */
  readonly asked: string[] = []
  /** Refuses everything with this status, as a store does that is out of order. */
  broken = 0
  /** Begun in pieces: when, for which name, with which headers of its own. */
  readonly sending = new Map<
    string,
    { key: string; atMs: number; own: Record<string, string>; pieces: Map<number, Buffer> }
  >()
  private readonly server: Server = createServer((request, response) => void this.answer(request, response))

  async start(): Promise<void> {
    await new Promise<void>((done) => this.server.listen(0, '127.0.0.1', done))
  }

  get url(): string {
    return `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`
  }

  get settings(): Record<string, string> {
    return {
      ...{ JIVET_S3_BUCKET: BUCKET, JIVET_S3_URL: this.url, JIVET_S3_REGION: 'deck', JIVET_S3_KEY: KEY },
      JIVET_S3_SECRET: 'nine bollards',
    }
  }

  async end(): Promise<void> {
    this.server.closeAllConnections()
    await new Promise((done) => this.server.close(done))
  }

  private async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const chunks: Buffer[] = []
    for await (const chunk of request) chunks.push(chunk as Buffer)
    const url = new URL(request.url ?? '', this.url)
    const [, named = '', ...rest] = url.pathname.split('/').map(decodeURIComponent)
    const key = rest.join('/')
    this.asked.push(`${request.method} ${key || url.search}`)
    response.setHeader('server', 'simulated bucket')
    const refuse = (status: number, code: string): void => {
      response.writeHead(status, { 'content-type': 'application/xml' })
      response.end(request.method === 'HEAD' ? '' : `<Error><Code>${code}</Code><Message>${code}</Message></Error>`)
    }
    if (this.broken) return refuse(this.broken, 'InternalError')
    if (!request.headers.authorization?.includes(`Credential=${KEY}/`)) return refuse(403, 'InvalidAccessKeyId')
    if (named !== BUCKET) return refuse(404, 'NoSuchBucket')
    const body = Buffer.concat(chunks)
    const xml = (text: string): void => void response.setHeader('content-type', 'application/xml').end(text)
    if (!key && request.method === 'HEAD') return void response.end()
    if (!key) return xml(request.method === 'POST' ? this.removed(body) : this.listing(url.searchParams))
    if (request.method === 'DELETE') {
      this.sending.delete(url.searchParams.get('uploadId') ?? '')
      return void response.writeHead(204).end()
    }
    if (request.method === 'PUT' || request.method === 'POST') return this.take(request, url, key, body, response)
    const file = this.files.get(key)
    if (!file) return refuse(404, 'NoSuchKey')
    response.writeHead(200, {
      'content-length': file.bytes.length,
      'last-modified': new Date(file.changedMs).toUTCString(),
      etag: tagOf(file.bytes),
      ...file.own,
    })
    response.end(request.method === 'HEAD' ? undefined : file.bytes)
  }

  /** A file, a copy of one, or one in pieces: begun, sent, put together. */
  private take(request: IncomingMessage, url: URL, key: string, body: Buffer, response: ServerResponse): void {
    const upload = url.searchParams.get('uploadId')
    if (url.searchParams.has('uploads')) {
      const id = `${key}#${this.sending.size}`
      this.sending.set(id, { key, atMs: Date.now(), own: ownOf(request), pieces: new Map() })
      response.end(`<InitiateMultipartUploadResult><UploadId>${id}</UploadId></InitiateMultipartUploadResult>`)
      return
    }
    const begun = upload === null ? undefined : this.sending.get(upload)
    const pieces = begun?.pieces
    if (pieces && request.method === 'PUT') {
      pieces.set(Number(url.searchParams.get('partNumber')), body)
      response.setHeader('etag', tagOf(body)).end()
      return
    }
    const from = request.headers['x-amz-copy-source']
    const copied = typeof from === 'string' ? this.files.get(decodeURIComponent(from).replace(`${BUCKET}/`, '')) : null
    const ordered = [...(pieces ?? [])].sort(([one], [other]) => one - other).map(([, piece]) => piece)
    const bytes = pieces ? Buffer.concat(ordered) : (copied?.bytes ?? body)
    this.files.set(key, { bytes, changedMs: Date.now(), own: begun?.own ?? ownOf(request) })
    if (upload !== null) this.sending.delete(upload)
    response.setHeader('etag', tagOf(bytes))
    const name = pieces ? 'CompleteMultipartUploadResult' : copied ? 'CopyObjectResult' : ''
    response.end(name && `<${name}><ETag>${tagOf(bytes)}</ETag></${name}>`)
  }

  private listing(asked: URLSearchParams): string {
    return asked.has('uploads') ? this.begun() : this.listed(asked)
  }

  private begun(): string {
    const uploads = [...this.sending].map(([id, { key, atMs }]) => {
      const began = new Date(atMs).toISOString()
      return `<Upload><Key>${key}</Key><UploadId>${id}</UploadId><Initiated>${began}</Initiated></Upload>`
    })
    return `<ListMultipartUploadsResult>${uploads.join('')}</ListMultipartUploadsResult>`
  }

  private removed(body: Buffer): string {
    for (const [, key = ''] of body.toString().matchAll(/<Key>([^<]*)<\/Key>/g)) this.files.delete(key)
    return '<DeleteResult></DeleteResult>'
  }

  private listed(asked: URLSearchParams): string {
    const after = asked.get('continuation-token') ?? ''
    const prefix = asked.get('prefix') ?? ''
    const names = [...this.files.keys()].filter((name) => name.startsWith(prefix) && name > after).sort()
    const page = names.slice(0, PAGE)
    const more = names.length > page.length
    const contents = page.map((name) => {
      const { bytes, changedMs } = this.files.get(name)!
      const changed = new Date(changedMs).toISOString()
      return `<Contents><Key>${name}</Key><Size>${bytes.length}</Size><LastModified>${changed}</LastModified></Contents>`
    })
    const next = more ? `<NextContinuationToken>${page.at(-1)}</NextContinuationToken>` : ''
    return `<ListBucketResult><IsTruncated>${more}</IsTruncated>${next}${contents.join('')}</ListBucketResult>`
  }
}

const ownOf = ({ headers }: IncomingMessage): Record<string, string> =>
  Object.fromEntries(
    Object.entries(headers).flatMap(([name, value]) =>
      name.startsWith('x-amz-meta-') && typeof value === 'string' ? [[name, value]] : [],
    ),
  )

const tagOf = (bytes: Buffer): string => `"${createHash('md5').update(bytes).digest('hex')}"`
