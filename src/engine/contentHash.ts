import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { pipeline } from 'node:stream/promises'

/** SHA-256 of a file, in hexadecimal digits. */
export async function contentHash(path: string): Promise<string> {
  const sum = createHash('sha256')
  await pipeline(createReadStream(path), sum)
  return sum.digest('hex')
}

/** Of a file whose hash may be known already. */
export const hashOf = async ({ path, hash }: { path: string; hash?: string }): Promise<string> =>
  hash ?? contentHash(path)
