// Checks a video that was just rendered. What it is joined from is decoded once: what was found to be right in a chunk
// stays with the chunk.
import { z } from 'zod'
import type { Verified } from '../core/proof/verify'
import type { Piece } from '../core/render/runs'
import type { ChunkStore } from './chunkStore'
import type { Rendered } from './render'
import type { Expected, Found, Known } from './expected'
import { lookThrough } from './verify'

const countsSchema = z.object({ checked: z.number(), worstFrames: z.number() })
const soundSchema = z.object({
  cues: z.object({ checked: z.number(), worstMs: z.number() }),
  loudness: z.object({ lufs: z.number().nullable(), targetLufs: z.number().nullable(), peakDb: z.number() }),
  lengthMs: z.number(),
})
type Counts = Verified['counts']

/** @throws Problem where the video cannot be read. */
export async function verifyRendered(
  video: string,
  expected: Omit<Expected, 'changes' | 'cues' | 'heard'>,
  { changes, sound, chunks, keys }: Rendered,
  { store, signal }: { store: ChunkStore; signal?: AbortSignal },
): Promise<Verified> {
  const all = { ...expected, changes, ...sound }
  if (!keys) return (await lookThrough(video, all, {}, signal)).verified
  const noted = await Promise.all(keys.chunks.map(async (key) => countsSchema.safeParse(await store.noted(key)).data))
  const soundNote = soundSchema.safeParse(await store.noted(keys.sound)).data
  const known: Known = {
    frames: chunks.filter((_, at) => !noted[at]).map(framesOf),
    counts: inAll(noted.flatMap((one) => one ?? [])),
    ...(soundNote ? { sound: { ...soundNote, faults: [] } } : {}),
  }
  const found = await lookThrough(video, all, known, signal)
  if (!found.verified.ok) return found.verified
  for (const [at, chunk] of chunks.entries())
    if (!noted[at]) await store.note(keys.chunks[at] ?? '', countsIn(chunk, found.turns))
  if (!soundNote) await store.note(keys.sound, soundSchema.parse(found.sound))
  return found.verified
}

const framesOf = ({ first, frames }: Piece) => ({ from: first, to: first + frames })

function countsIn(chunk: Piece, turns: Found['turns']): Counts {
  const { from, to } = framesOf(chunk)
  const own = turns.filter(({ frame }) => frame >= from && frame < to)
  return { checked: own.length, worstFrames: Math.max(0, ...own.map(({ off }) => Math.abs(off))) }
}

const inAll = (counts: readonly Counts[]): Counts => ({
  checked: counts.reduce((total, { checked }) => total + checked, 0),
  worstFrames: Math.max(0, ...counts.map(({ worstFrames }) => worstFrames)),
})
