// The bucket in which several machines keep one store, where the settings name one: by the S3 protocol, under the very
// names that the files have in the data folder. Each machine's own folder then only holds what it has used.
import { createReadStream, createWriteStream } from 'node:fs'
import { mkdir, rename, rm, stat } from 'node:fs/promises'
import { randomUUID } from 'node:crypto'
import { dirname } from 'node:path'
import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import {
  AbortMultipartUploadCommand,
  CopyObjectCommand,
  DeleteObjectsCommand,
  GetObjectCommand,
  HeadBucketCommand,
  HeadObjectCommand,
  ListMultipartUploadsCommand,
  paginateListObjectsV2,
  S3Client,
  S3ServiceException,
} from '@aws-sdk/client-s3'
import { Upload } from '@aws-sdk/lib-storage'
import { Problem } from '../core/problem'
import type { Ms } from '../core/units'
import { contentHash } from '../engine/contentHash'
import type { FarStore } from '../engine/chunkStore'
import { readSettings, type Settings } from './settings'

export interface BucketFile {
  name: string
  bytes: number
  /** Milliseconds since the epoch. */
  changedMs: Ms
}

/** A file may be sent in so many pieces at most, and none but the last may be smaller than this. */
const MOST_PIECES = 9000,
  LEAST_PIECE = 8 * 1024 ** 2
/** So many can be removed at once. */
const MOST_AT_ONCE = 1000
/** So many are asked for at a time. */
const MOST_BESIDE = 8
const DAY_MS: Ms = 24 * 3_600_000
/** Carried by each file: its SHA-256, in hexadecimal digits. */
const HASH = 'sha256'
/** Files of the store are called by their hash; null for any other. */
const hashInName = (name: string): string | null => /^store\/[0-9a-f]{2}\/([0-9a-f]{64})$/.exec(name)?.[1] ?? null

export class Bucket implements FarStore {
  private readonly client: S3Client
  private readonly name: string
  private real: Promise<boolean> | null = null

  constructor({ JIVET_S3_BUCKET, JIVET_S3_URL, JIVET_S3_REGION, JIVET_S3_KEY, JIVET_S3_SECRET }: Settings) {
    this.name = JIVET_S3_BUCKET
    // What the client says of versions of Node that come is for who builds Jivet.
    process.env.AWS_SDK_JS_NODE_VERSION_SUPPORT_WARNING_DISABLED = 'true'
    this.client = new S3Client({
      region: JIVET_S3_REGION,
      // Servers of one's own seldom have a name for each bucket.
      ...(JIVET_S3_URL ? { endpoint: JIVET_S3_URL, forcePathStyle: true } : {}),
      credentials: { accessKeyId: JIVET_S3_KEY, secretAccessKey: JIVET_S3_SECRET },
      requestChecksumCalculation: 'WHEN_REQUIRED',
      responseChecksumValidation: 'WHEN_REQUIRED',
      maxAttempts: 4,
      // A connection that says nothing for so long is given up, and tried again.
      requestHandler: { connectionTimeout: 10_000, requestTimeout: 60_000, throwOnRequestTimeout: true },
    })
  }

  /** Null where there is none of the name. */
  private async facts(name: string): Promise<(BucketFile & { hash: string | null }) | null> {
    const head = await this.asked(() => this.client.send(new HeadObjectCommand({ Bucket: this.name, Key: name })))
    if (!head) return null
    const { ContentLength: bytes = 0, LastModified, Metadata } = head
    return { name, bytes, changedMs: LastModified?.getTime() ?? 0, hash: Metadata?.[HASH] ?? null }
  }

  /** @throws Problem `store-away`, as all others do. */
  has = async (name: string): Promise<boolean> => (await this.facts(name)) !== null

  /** Sends a file; it is there as a whole or not at all. */
  async put(name: string, path: string): Promise<void> {
    const { size } = await stat(path)
    const partSize = Math.max(LEAST_PIECE, Math.ceil(size / MOST_PIECES))
    const Metadata = { [HASH]: hashInName(name) ?? (await contentHash(path)) }
    const params = { Bucket: this.name, Key: name, Body: createReadStream(path), ContentLength: size, Metadata }
    await this.asked(() => new Upload({ client: this.client, params, partSize, queueSize: 2 }).done())
  }

  /**
   * Brings a file, under its name only when it is whole and what was sent, by its hash.
   * @returns whether there is one of the name.
   */
  async fetch(name: string, to: string): Promise<boolean> {
    const begun = `${to}.${randomUUID()}`
    await mkdir(dirname(to), { recursive: true })
    try {
      const there = await this.asked(async () => {
        const got = await this.client.send(new GetObjectCommand({ Bucket: this.name, Key: name }))
        await pipeline(got.Body as Readable, createWriteStream(begun, { flush: true }))
        if ((await stat(/*turbopackIgnore: true*/ begun)).size !== got.ContentLength) throw new Error('it broke off')
        return { hash: got.Metadata?.[HASH] ?? null }
      })
      if (!there) return false
      const sent = hashInName(name) ?? there.hash
      // Of what an older Jivet sent nobody knows what it should be.
      if (sent === null) return false
      if ((await contentHash(begun)) !== sent) throw new Problem({ code: 'store-away', reason: `${name} came damaged` })
      await rename(begun, to)
      return true
    } finally {
      await rm(begun, { force: true })
    }
  }

  /** All whose name begins so. */
  async list(prefix: string): Promise<BucketFile[]> {
    const found: BucketFile[] = []
    await this.asked(async () => {
      const pages = paginateListObjectsV2({ client: this.client }, { Bucket: this.name, Prefix: prefix })
      for await (const { Contents = [] } of pages)
        for (const { Key = '', Size = 0, LastModified } of Contents)
          found.push({ name: Key, bytes: Size, changedMs: LastModified?.getTime() ?? 0 })
    })
    return found
  }

  /** Ends what was begun to be sent in pieces before an instant and never ended: it is paid for, and nobody sees it. */
  async endGivenUp(beforeMs: Ms): Promise<number> {
    const found = await this.asked(() => this.client.send(new ListMultipartUploadsCommand({ Bucket: this.name })))
    const old = (found?.Uploads ?? []).filter(({ Initiated }) => Initiated && Initiated.getTime() < beforeMs)
    for (let at = 0; at < old.length; at += MOST_BESIDE)
      await Promise.all(
        old
          .slice(at, at + MOST_BESIDE)
          .map(({ Key, UploadId }) =>
            this.asked(() => this.client.send(new AbortMultipartUploadCommand({ Bucket: this.name, Key, UploadId }))),
          ),
      )
    return old.length
  }

  async remove(names: readonly string[]): Promise<void> {
    for (let at = 0; at < names.length; at += MOST_AT_ONCE) {
      const Objects = names.slice(at, at + MOST_AT_ONCE).map((Key) => ({ Key }))
      await this.asked(() =>
        this.client.send(new DeleteObjectsCommand({ Bucket: this.name, Delete: { Objects, Quiet: true } })),
      )
    }
  }

  /** What is used is young: its age there is reckoned from when it was last changed, a day more or less. */
  async touch(name: string): Promise<void> {
    const facts = await this.facts(name)
    if (!facts?.hash || facts.changedMs > Date.now() - DAY_MS) return
    const Metadata = { [HASH]: facts.hash }
    await this.asked(() =>
      this.client.send(
        new CopyObjectCommand({
          ...{ Bucket: this.name, Key: name, CopySource: `${this.name}/${name}` },
          ...{ MetadataDirective: 'REPLACE' as const, Metadata },
        }),
      ),
    )
  }

  /** Of a bucket that there is not, too, every name is said not to be there. */
  private isReal(): Promise<boolean> {
    this.real ??= this.client.send(new HeadBucketCommand({ Bucket: this.name })).then(
      () => true,
      () => {
        this.real = null
        return false
      },
    )
    return this.real
  }

  /** @returns null where there is nothing of the name. */
  private async asked<T>(ask: () => Promise<T>): Promise<T | null> {
    try {
      return await ask()
    } catch (error) {
      const isNotThere = error instanceof S3ServiceException && error.$metadata.httpStatusCode === 404
      if (isNotThere && (await this.isReal())) return null
      if ((error as NodeJS.ErrnoException).code === 'ENOSPC') throw error
      throw new Problem({ code: 'store-away', reason: reasonOf(error) })
    }
  }
}

/** What the protocol calls an answer that has no room for its name: one to a question after a file's facts. */
const NAMELESS: Readonly<Record<number, string>> = { 403: 'AccessDenied', 404: 'NoSuchBucket' }

/** A network's error has a code, a store's a name. */
function reasonOf(error: unknown): string {
  const { code, name, message } = error as NodeJS.ErrnoException
  if (error instanceof S3ServiceException && message === 'UnknownError')
    return NAMELESS[error.$metadata.httpStatusCode ?? 0] ?? name
  return [code ?? name, message].filter(Boolean).join(': ')
}

const kept = globalThis as typeof globalThis & { jivetBucket?: Bucket | null }

/** Null where the data folder is all there is. */
export function bucket(): Bucket | null {
  if (kept.jivetBucket === undefined) {
    const settings = readSettings()
    kept.jivetBucket = settings.JIVET_S3_BUCKET ? new Bucket(settings) : null
  }
  return kept.jivetBucket
}
