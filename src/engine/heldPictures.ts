// A QuickTime movie in which pictures stand for as long as they do without being written again: each of its samples
// says where its bytes lie, and samples that show the same say the same (QuickTime File Format: stts, stsc, stsz,
// co64).
import { open, type FileHandle } from 'node:fs/promises'
import { sum } from '../core/sum'
import type { Rate } from '../core/units'

/** An atom: `[at, end)` in the buffer, whose contents begin at `body`. */
interface Atom {
  kind: string
  at: number
  body: number
  end: number
}

/** Those that hold others. */
const HOLDERS = new Set(['moov', 'trak', 'mdia', 'minf', 'stbl', 'edts'])
/** Of what holds for single samples, and no longer does. */
const OF_SAMPLES = new Set(['stts', 'stsc', 'stsz', 'stco', 'co64', 'stss', 'sdtp', 'ctts', 'stps'])

/**
 * Has the samples of a movie with one track of pictures, none of which needs another, stand in another order and as
 * often as is said. The movie's index, which has to be its last atom, is written anew.
 * @param shown for each picture of the new movie the number of its sample in the old one.
 * @param rate of the new movie, in which the track's timescale is a whole number of units to a picture.
 */
export async function holdPictures(path: string, shown: readonly number[], rate: Rate): Promise<void> {
  const file = await open(path, 'r+')
  try {
    const { at, bytes } = await indexOf(file)
    const samples = samplesIn(bytes)
    const made = remade(bytes, 0, bytes.length, { shown, rate, samples })
    await file.truncate(at)
    await file.write(made, 0, made.length, at)
  } finally {
    await file.close()
  }
}

/** The last atom of a movie, which is its index. */
async function indexOf(file: FileHandle): Promise<{ at: number; bytes: Buffer }> {
  const { size } = await file.stat()
  const head = Buffer.alloc(16)
  for (let at = 0; at < size;) {
    await file.read(head, 0, 16, at)
    const short = head.readUInt32BE(0)
    const length = short === 1 ? Number(head.readBigUInt64BE(8)) : short || size - at
    if (head.toString('latin1', 4, 8) === 'moov') {
      const bytes = Buffer.alloc(length)
      await file.read(bytes, 0, length, at)
      return { at, bytes }
    }
    at += length
  }
  throw new Error('a movie without an index')
}

function atomsIn(bytes: Buffer, from: number, end: number): Atom[] {
  const atoms: Atom[] = []
  for (let at = from; at < end; at = atoms.at(-1)?.end ?? end)
    atoms.push({ kind: bytes.toString('latin1', at + 4, at + 8), at, body: at + 8, end: at + bytes.readUInt32BE(at) })
  return atoms
}

interface Sample {
  offset: bigint
  bytes: number
}

function find(bytes: Buffer, kind: string, from = 0, end = bytes.length): Atom | null {
  for (const atom of atomsIn(bytes, from, end)) {
    if (atom.kind === kind) return atom
    const within = HOLDERS.has(atom.kind) ? find(bytes, kind, atom.body, atom.end) : null
    if (within) return within
  }
  return null
}

/** Where each sample lies: chunks begin somewhere, and hold so many samples, one behind another. */
function samplesIn(bytes: Buffer): Sample[] {
  const [stsz, stsc] = [find(bytes, 'stsz'), find(bytes, 'stsc')]
  const offsets = find(bytes, 'co64') ?? find(bytes, 'stco')
  if (!stsz || !stsc || !offsets) throw new Error('a movie without samples')
  const same = bytes.readUInt32BE(stsz.body + 4)
  const sizes = Array.from({ length: bytes.readUInt32BE(stsz.body + 8) }, (_, number) =>
    same ? same : bytes.readUInt32BE(stsz.body + 12 + 4 * number),
  )
  const runs = Array.from({ length: bytes.readUInt32BE(stsc.body + 4) }, (_, number) => {
    const at = stsc.body + 8 + 12 * number
    return { first: bytes.readUInt32BE(at), count: bytes.readUInt32BE(at + 4) }
  })
  const samples: Sample[] = []
  for (let chunk = 1; chunk <= bytes.readUInt32BE(offsets.body + 4); chunk++) {
    let offset =
      offsets.kind === 'co64'
        ? bytes.readBigUInt64BE(offsets.body + 8 * chunk)
        : BigInt(bytes.readUInt32BE(offsets.body + 4 + 4 * chunk))
    const count = runs.findLast(({ first }) => first <= chunk)?.count ?? 0
    for (let one = 0; one < count; one++) {
      const size = sizes[samples.length] ?? 0
      samples.push({ offset, bytes: size })
      offset += BigInt(size)
    }
  }
  return samples
}

interface Held {
  shown: readonly number[]
  rate: Rate
  samples: readonly Sample[]
}

/** Atoms `[from, end)` as they are for the new movie. */
function remade(bytes: Buffer, from: number, end: number, held: Held): Buffer {
  return Buffer.concat(
    atomsIn(bytes, from, end).flatMap((atom): Buffer[] => {
      const { kind, at, body } = atom
      if (kind === 'stbl') {
        const others = atomsIn(bytes, body, atom.end).filter((one) => !OF_SAMPLES.has(one.kind))
        return [atomOf(kind, [...others.map((one) => bytes.subarray(one.at, one.end)), ...tablesOf(bytes, held)])]
      }
      if (HOLDERS.has(kind)) return [atomOf(kind, [remade(bytes, body, atom.end, held)])]
      const copy = Buffer.from(bytes.subarray(at, atom.end))
      const place = LENGTHS[kind]
      if (place) lengthen(copy, place.at, lengthOf(held, timescaleIn(bytes, place.of)))
      return [copy]
    }),
  )
}

function atomOf(kind: string, parts: readonly Buffer[]): Buffer {
  const head = Buffer.alloc(8)
  head.writeUInt32BE(8 + sum(parts.map(({ length }) => length)))
  head.write(kind, 4, 'latin1')
  return Buffer.concat([head, ...parts])
}

/** Units of a header's timescale to the second: it stands behind two times of 4 or, in version 1, of 8 bytes. */
function timescaleIn(bytes: Buffer, kind: 'mvhd' | 'mdhd'): number {
  const atom = find(bytes, kind)
  if (!atom) throw new Error(`a movie without ${kind}`)
  return bytes.readUInt32BE(atom.body + 4 + (bytes[atom.body] === 1 ? 16 : 8))
}

/** Where in an atom its length stands, behind its head of 8 bytes and its version; by version 0 and 1. */
const LENGTHS: Readonly<Record<string, { at: [number, number]; of: 'mvhd' | 'mdhd' }>> = {
  mvhd: { at: [16, 24], of: 'mvhd' },
  tkhd: { at: [20, 28], of: 'mvhd' },
  mdhd: { at: [16, 24], of: 'mdhd' },
  elst: { at: [8, 8], of: 'mvhd' },
}

const lengthOf = ({ shown, rate }: Held, timescale: number): number =>
  Math.round((shown.length * rate.den * timescale) / rate.num)

function lengthen(atom: Buffer, places: readonly [number, number], length: number): void {
  if (atom[8] === 1) atom.writeBigUInt64BE(BigInt(length), 8 + places[1])
  else atom.writeUInt32BE(length, 8 + places[0])
}

/** Each picture stands for as long as any other, alone in a chunk of its own. */
function tablesOf(bytes: Buffer, { shown, rate, samples }: Held): Buffer[] {
  const one = (timescaleIn(bytes, 'mdhd') * rate.den) / rate.num
  const all = shown.map((number) => samples[number] ?? { offset: 0n, bytes: 0 })
  const table = (kind: string, words: readonly number[]): Buffer => {
    const body = Buffer.alloc(4 * words.length)
    words.forEach((word, at) => body.writeUInt32BE(word, 4 * at))
    return atomOf(kind, [body])
  }
  const offsets = Buffer.alloc(8 + 8 * all.length)
  offsets.writeUInt32BE(all.length, 4)
  all.forEach(({ offset }, at) => offsets.writeBigUInt64BE(offset, 8 + 8 * at))
  return [
    table('stts', [0, 1, all.length, one]),
    table('stsc', [0, 1, 1, 1, 1]),
    table('stsz', [0, 0, all.length, ...all.map((sample) => sample.bytes)]),
    atomOf('co64', [offsets]),
  ]
}
