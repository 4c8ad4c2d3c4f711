// Where uploads are written: on the disk before anything is acknowledged, with a hash of each piece as it came, so that
// what is read later can be held against what was sent.
import { createHash, type Hash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { appendFile, readFile, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { Transform, type Readable } from 'node:stream'
import { FileStore } from '@tus/file-store'
import { z } from 'zod'
import { Problem } from '../core/problem'
import { flush, uploadsFolder } from './store'
import { noteOf } from './uploadNotes'

/** Beside an upload: a line for each piece that came whole. */
export const PIECES = '.pieces'

const pieceSchema = z.object({ from: z.number().int().min(0), bytes: z.number().int().min(1), sha256: z.string() })
type Piece = z.infer<typeof pieceSchema>

export class FlushedStore extends FileStore {
  override async create(file: Parameters<FileStore['create']>[0]): ReturnType<FileStore['create']> {
    const made = await super.create(file)
    const path = join(uploadsFolder(), file.id)
    for (const one of [path, `${path}.json`, uploadsFolder()]) await flush(one)
    return made
  }

  override async write(readable: Parameters<FileStore['write']>[0], id: string, offset: number): Promise<number> {
    const sum = createHash('sha256')
    const through = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        sum.update(chunk)
        done(null, chunk)
      },
    })
    const source = readable as Readable
    source.on('error', (error) => through.destroy(error))
    const end = await super.write(source.pipe(through), id, offset)
    const path = join(uploadsFolder(), id)
    await flush(path)
    const piece: Piece = { from: offset, bytes: end - offset, sha256: sum.digest('hex') }
    if (piece.bytes > 0) {
      await appendFile(`${path}${PIECES}`, `${JSON.stringify(piece)}\n`)
      await flush(`${path}${PIECES}`)
    }
    return end
  }
}

async function piecesOf(path: string): Promise<Piece[]> {
  const text = await readFile(`${path}${PIECES}`, 'utf8').catch(() => '')
  return text
    .split('\n')
    .flatMap((line) => {
      try {
        const read = pieceSchema.safeParse(JSON.parse(line))
        return read.success ? [read.data] : []
      } catch {
        // A line that was being written as the machine stopped: its piece was not acknowledged.
        return []
      }
    })
    .sort((one, other) => one.from - other.from)
}

/**
 * The SHA-256 of a finished upload, in hexadecimal digits, read once and held against its length and its pieces as they
 * were sent.
 * @throws Problem `upload-differs`.
 */
export async function hashAsSent(upload: string): Promise<string> {
  const path = join(uploadsFolder(), upload)
  const [note, facts, pieces] = await Promise.all([noteOf(upload), stat(path), piecesOf(path)])
  if (note && note.size !== facts.size)
    throw new Problem({ code: 'upload-differs', sentBytes: note.size, thereBytes: facts.size })
  const whole = createHash('sha256')
  const sums = pieces.map((): Hash => createHash('sha256'))
  let at = 0
  let first = 0
  for await (const chunk of createReadStream(path, { highWaterMark: 1024 * 1024 })) {
    const bytes = chunk as Buffer
    whole.update(bytes)
    for (let number = first; number < pieces.length; number++) {
      const piece = pieces[number]
      if (!piece || piece.from >= at + bytes.length) break
      const end = piece.from + piece.bytes
      if (end <= at) {
        if (number === first) first++
        continue
      }
      sums[number]?.update(bytes.subarray(Math.max(0, piece.from - at), Math.min(bytes.length, end - at)))
    }
    at += bytes.length
  }
  if (sums.some((sum, number) => sum.digest('hex') !== pieces[number]?.sha256))
    throw new Problem({ code: 'upload-differs', sentBytes: facts.size, thereBytes: facts.size })
  return whole.digest('hex')
}
