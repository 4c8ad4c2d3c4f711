// A WebM in which a picture that stands takes a byte for each time that it is shown again: VP9 has pictures that only
// name one that was coded before (`show_existing_frame`), and what is seen through is such a stream of its own beside
// it. Elements as in RFC 8794 and RFC 9559.
import { readFile, writeFile } from 'node:fs/promises'
import { sum } from '../core/sum'
import { frameMsOf, type Ms, type Rate } from '../core/units'

const ID = {
  segment: 0x18538067,
  info: 0x1549a966,
  duration: 0x4489,
  tracks: 0x1654ae6b,
  cluster: 0x1f43b675,
  timestamp: 0xe7,
  simpleBlock: 0xa3,
  blockGroup: 0xa0,
  block: 0xa1,
  referenceBlock: 0xfb,
  blockAdditions: 0x75a1,
  blockMore: 0xa6,
  blockAddId: 0xee,
  blockAdditional: 0xa5,
  cues: 0x1c53bb6b,
  cuePoint: 0xbb,
  cueTime: 0xb3,
  cueTrackPositions: 0xb7,
  cueTrack: 0xf7,
  cueClusterPosition: 0xf1,
} as const

/** `[at, end)` in the buffer, whose contents begin at `body`. */
interface Element {
  id: number
  at: number
  body: number
  end: number
}

/** A picture as it was coded, and its alpha. */
interface Sample {
  colour: Buffer
  alpha: Buffer
}

/** Of a block before its picture: the track's number, the time after its cluster's, and flags. */
const BLOCK_HEAD = 4
/** Profile 0, and the first of what was coded before: a key picture takes all places. */
const SHOWN_AGAIN: Sample = { colour: Buffer.of(0x88), alpha: Buffer.of(0x88) }
/** Times within a cluster have 16 bits. */
const LONGEST_CLUSTER_MS: Ms = 30_000

/**
 * Has the pictures of a WebM with one track, VP9 with alpha, all of them key pictures, stand in another order and as
 * often as is said.
 * @param shown for each picture of the new video the number of one in the old.
 * @param rate of the new video.
 */
export async function holdInWebm(path: string, shown: readonly number[], rate: Rate): Promise<void> {
  const bytes = await readFile(path)
  const top = elementsIn(bytes, 0, bytes.length)
  const segment = only(top, ID.segment)
  const within = elementsIn(bytes, segment.body, segment.end)
  const samples = within.filter(({ id }) => id === ID.cluster).flatMap((cluster) => samplesIn(bytes, cluster))
  const frameMs = frameMsOf(rate)
  const info = only(within, ID.info)
  const told = elementsIn(bytes, info.body, info.end).filter(({ id }) => id !== ID.duration)
  const tracks = only(within, ID.tracks)
  const head = [
    ...element(ID.info, [
      ...told.map(({ at, end }) => bytes.subarray(at, end)),
      ...element(ID.duration, [float(shown.length * frameMs)]),
    ]),
    bytes.subarray(tracks.at, tracks.end),
  ]
  const clusters = clustersOf(shown, samples, frameMs)
  // Positions have one length, whatever they are.
  const cuesLength = lengthOf(cuesOf(clusters, 0))
  const cues = cuesOf(clusters, lengthOf(head) + cuesLength)
  const body = [...head, ...cues, ...clusters.flatMap(({ parts }) => parts)]
  await writeFile(path, [bytes.subarray(0, segment.at), ...element(ID.segment, body)])
}

function elementsIn(bytes: Buffer, from: number, end: number): Element[] {
  const elements: Element[] = []
  for (let at = from; at < end;) {
    const idLength = numberLength(bytes, at)
    const sizeAt = at + idLength
    const sizeLength = numberLength(bytes, sizeAt)
    let size = (bytes[sizeAt] ?? 0) & (0xff >> sizeLength)
    for (let more = 1; more < sizeLength; more++) size = size * 256 + (bytes[sizeAt + more] ?? 0)
    const body = sizeAt + sizeLength
    elements.push({ id: bytes.readUIntBE(at, idLength), at, body, end: Math.min(end, body + size) })
    at = body + size
  }
  return elements
}

/** By the zeros that a number begins with. */
function numberLength(bytes: Buffer, at: number): number {
  const length = Math.clz32(bytes[at] ?? 0) - 23
  if (length > 8) throw new Error('no WebM')
  return length
}

function only(elements: readonly Element[], id: number): Element {
  const found = elements.find((one) => one.id === id)
  if (!found) throw new Error(`a WebM without element ${id.toString(16)}`)
  return found
}

function samplesIn(bytes: Buffer, { body, end }: Element): Sample[] {
  return elementsIn(bytes, body, end)
    .filter(({ id }) => id === ID.blockGroup || id === ID.simpleBlock)
    .map((group) => {
      if (group.id === ID.simpleBlock) throw new Error('a picture without alpha')
      const within = elementsIn(bytes, group.body, group.end)
      const block = only(within, ID.block),
        additions = only(within, ID.blockAdditions)
      const more = only(elementsIn(bytes, additions.body, additions.end), ID.blockMore)
      const alpha = only(elementsIn(bytes, more.body, more.end), ID.blockAdditional)
      const sample = {
        colour: bytes.subarray(block.body + BLOCK_HEAD, block.end),
        alpha: bytes.subarray(alpha.body, alpha.end),
      }
      if (!isKey(sample.colour) || !isKey(sample.alpha)) throw new Error('a picture that needs another')
      return sample
    })
}

/** By the bits that a picture of VP9 begins with: `frame_type`. */
const isKey = (picture: Buffer): boolean => ((picture[0] ?? 0xff) & 0x0c) === 0

interface Cluster {
  atMs: Ms
  /** With a picture that needs no other. */
  begins: boolean
  parts: Buffer[]
}

/** One for each picture that is coded, and further ones where it stands for long. */
function clustersOf(shown: readonly number[], samples: readonly Sample[], frameMs: Ms): Cluster[] {
  const clusters: (Omit<Cluster, 'parts'> & { groups: Buffer[] })[] = []
  shown.forEach((number, frame) => {
    const atMs = Math.round(frame * frameMs)
    const isNew = number !== shown[frame - 1]
    const sample = isNew ? samples[number] : SHOWN_AGAIN
    if (!sample) throw new Error(`picture ${number} is not there`)
    const open = clusters.at(-1)
    const cluster = open && !isNew && atMs - open.atMs < LONGEST_CLUSTER_MS ? open : { atMs, begins: isNew, groups: [] }
    if (cluster !== open) clusters.push(cluster)
    const sinceMs = atMs - Math.round((frame - 1) * frameMs)
    cluster.groups.push(...blockOf(sample, atMs - cluster.atMs, isNew ? null : sinceMs))
  })
  return clusters.map(({ atMs, begins, groups }) => ({
    ...{ atMs, begins },
    parts: element(ID.cluster, [...element(ID.timestamp, [whole(atMs)]), ...groups]),
  }))
}

/** @param needsMs how long before it the picture is that it needs; null where it needs none. */
function blockOf({ colour, alpha }: Sample, intoMs: Ms, needsMs: Ms | null): Buffer[] {
  const head = Buffer.of(0x81, 0, 0, 0)
  head.writeInt16BE(intoMs, 1)
  const before = Buffer.alloc(2)
  before.writeInt16BE(-(needsMs ?? 0))
  return element(ID.blockGroup, [
    ...element(ID.block, [head, colour]),
    ...element(ID.blockAdditions, [
      ...element(ID.blockMore, [...element(ID.blockAddId, [Buffer.of(1)]), ...element(ID.blockAdditional, [alpha])]),
    ]),
    ...(needsMs === null ? [] : element(ID.referenceBlock, [before])),
  ])
}

/** Where each picture that needs no other lies. @param from where the first cluster begins in its segment. */
function cuesOf(clusters: readonly Cluster[], from: number): Buffer[] {
  let at = from
  const points = clusters.flatMap(({ atMs, begins, parts }) => {
    const position = at
    at += lengthOf(parts)
    if (!begins) return []
    return element(ID.cuePoint, [
      ...element(ID.cueTime, [whole(atMs)]),
      ...element(ID.cueTrackPositions, [
        ...element(ID.cueTrack, [Buffer.of(1)]),
        ...element(ID.cueClusterPosition, [whole(position)]),
      ]),
    ])
  })
  return element(ID.cues, points)
}

const lengthOf = (parts: readonly Buffer[]): number => sum(parts.map(({ length }) => length))

function element(id: number, body: Buffer[]): Buffer[] {
  const idLength = Math.ceil((32 - Math.clz32(id)) / 8)
  const length = lengthOf(body)
  // All bits set would mean that nobody knows how long it is.
  const sizeLength = length < 0x7f ? 1 : 8
  const head = Buffer.alloc(idLength + sizeLength)
  head.writeUIntBE(id, 0, idLength)
  if (sizeLength === 1) head[idLength] = 0x80 | length
  else {
    head[idLength] = 1
    head.writeUIntBE(length, idLength + 2, 6)
  }
  return [head, ...body]
}

function whole(value: number): Buffer {
  const bytes = Buffer.alloc(8)
  bytes.writeBigUInt64BE(BigInt(value))
  return bytes
}

function float(value: number): Buffer {
  const bytes = Buffer.alloc(8)
  bytes.writeDoubleBE(value)
  return bytes
}
