// A box at the end of an MP4 file (ISO/IEC 14496-12, `uuid`) in which stands what the video was made with. Players pass
// over it.
import { open, type FileHandle } from 'node:fs/promises'
import { promisify } from 'node:util'
import { deflateRaw, inflateRaw } from 'node:zlib'
import { readMade, type Made } from '../core/render/made'

/** By which the box is known. */
const NAME = Buffer.from('6f1d2c5e93b84c0a8f5be2417a0d96c3', 'hex')
const HEAD_BYTES = 8
/** What is longer is none of ours; a day of five-second intervals stays below. */
const MOST_BYTES = 16e6

/** Adds the box to a video that is finished. */
export async function writeMadeBox(path: string, made: Made): Promise<void> {
  const content = await promisify(deflateRaw)(JSON.stringify(made))
  const head = Buffer.alloc(HEAD_BYTES)
  head.writeUInt32BE(HEAD_BYTES + NAME.length + content.length)
  head.write('uuid', 4, 'latin1')
  const file = await open(path, 'a')
  try {
    await file.appendFile(Buffer.concat([head, NAME, content]))
  } finally {
    await file.close()
  }
}

/** @returns null where there is none: the video is somebody else's, or was worked on by another program. */
export async function readMadeBox(path: string): Promise<Made | null> {
  const file = await open(path)
  try {
    const content = await contentIn(file)
    return content && readMade((await promisify(inflateRaw)(content, { maxOutputLength: MOST_BYTES })).toString())
  } catch {
    // Damaged, or no MP4 at all.
    return null
  } finally {
    await file.close()
  }
}

async function contentIn(file: FileHandle): Promise<Buffer | null> {
  const { size } = await file.stat()
  for (let at = 0; at + HEAD_BYTES <= size;) {
    const { length, kind, headBytes } = await headAt(file, at, size)
    if (length < headBytes) return null
    const inner = length - headBytes
    if (kind === 'uuid' && inner >= NAME.length && inner <= MOST_BYTES) {
      const box = Buffer.alloc(inner)
      await file.read(box, 0, inner, at + headBytes)
      if (box.subarray(0, NAME.length).equals(NAME)) return box.subarray(NAME.length)
    }
    at += length
  }
  return null
}

/** A box begins with its length, 1 where that follows as a long one and 0 where it reaches to the end, and its kind. */
async function headAt(file: FileHandle, at: number, size: number) {
  const head = Buffer.alloc(2 * HEAD_BYTES)
  await file.read(head, 0, head.length, at)
  const told = head.readUInt32BE()
  const isLong = told === 1
  return {
    kind: head.toString('latin1', 4, 8),
    length: isLong ? Number(head.readBigUInt64BE(8)) : told === 0 ? size - at : told,
    headBytes: isLong ? 2 * HEAD_BYTES : HEAD_BYTES,
  }
}
