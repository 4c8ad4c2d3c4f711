// Renders the published video: chunks of footage with the overlay strip laid over it, joined by a copy, and the cues
// mixed under its sound. All times here are output time, through the cut.
import { mkdtemp, rename, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { USUAL_LOOK } from '../core/look/looks/family'
import type { OverlayChange } from '../core/look/overlay'
import { madeOf } from '../core/render/made'
import { framesOf, rowsOf } from '../core/render/plan'
import type { Piece } from '../core/render/runs'
import { Problem } from '../core/problem'
import { USUAL_MIX } from '../core/sound/mix'
import { sum } from '../core/sum'
import type { Ms, Share } from '../core/units'
import type { ChunkStore } from './chunkStore'
import { hashOf } from './contentHash'
import { lanes, QUIET } from './encoding'
import { patience } from './input'
import { writeMadeBox } from './madeBox'
import { chunkKeys as chunkKeysOf, picturePlan, type PicturePlan } from './picturePlan'
import type { FootageFacts } from './probe'
import type { RecordedFile, RenderJob } from './renderJob'
import { renderRow, type RowWork } from './renderRow'
import { renderSound, soundPlan, type SoundPlan } from './renderSound'
import { soundKeyOf } from './soundKey'
import { runTool } from './tool'

/** How chunks that are there already are used, and those that are not come to be. */
export interface Chunked {
  store: ChunkStore
  /** Renders rows of chunks and keeps each in the store. Default: this process does, one row after another. */
  renderRows?: (
    rows: readonly (readonly Piece[])[],
    about: { chunks: readonly Piece[]; onProgress: (share: Share) => void; signal: AbortSignal },
  ) => Promise<void>
}

/** What a video was rendered with, for whoever checks it. */
export interface Rendered {
  changes: readonly OverlayChange[]
  sound: SoundPlan
  chunks: readonly Piece[]
  /** Null where nothing is kept. */
  keys: { chunks: readonly string[]; sound: string } | null
  /** How many of the chunks were not there yet, and how long they are. */
  made: number
  madeMs: Ms
}

interface Work {
  /** For what waits. */
  folder: string
  signal: AbortSignal
  chunked: Chunked | undefined
}

/**
 * Writes an MP4 (H.264, AAC, index first) of the first file's rate and of its size, or as it is framed, and of the
 * cut's length.
 * @param chunked without it nothing is kept.
 * @throws Problem `cut-empty`, `tool-failed`, `disk-full`, `tool-missing` or `cancelled`.
 */
export async function renderVideo(asked: RenderJob, chunked?: Chunked): Promise<Rendered> {
  // Picture and sound have keys of the same files, which are read for that once.
  const job = chunked ? { ...asked, reel: await identified(asked.reel) } : asked
  const plan = picturePlan(job)
  const halt = new AbortController()
  const signal = job.signal ? AbortSignal.any([job.signal, halt.signal]) : halt.signal
  const folder = await mkdtemp(join(job.scratch ?? tmpdir(), 'jivet-render-'))
  const work = { folder, signal, chunked }
  const sounding = soundPlan(job, signal)
  // Apart, because one ffmpeg filters and encodes sound on the very thread that feeds the picture's encoder.
  const picture = renderPicture(job, plan, work)
  const sound = sounding.then((sounds) => renderSoundOnce(job, sounds, { ...work, facts: plan.facts }))
  try {
    const [{ chunkKeys, ...made }, soundKey] = await Promise.all([picture, sound])
    await joinUp(job, plan, work)
    await writeMadeBox(job.out, madeOf({ ...job, look: job.look ?? USUAL_LOOK, mix: job.mix ?? USUAL_MIX }))
    const keys = chunkKeys && soundKey !== null ? { chunks: chunkKeys, sound: soundKey } : null
    return { changes: plan.changes, sound: await sounding, chunks: plan.chunks, keys, ...made }
  } catch (error) {
    // Whatever is broken off between two tools is broken off all the same.
    throw job.signal?.aborted ? new Problem({ code: 'cancelled' }) : error
  } finally {
    // Where one fails the others are halted, and none is still at work on the folder that is swept.
    halt.abort()
    await Promise.allSettled([picture, sound])
    await rm(folder, { recursive: true, force: true })
  }
}

const identified = (reel: RenderJob['reel']): Promise<RecordedFile[]> =>
  Promise.all(reel.map(async (file) => ({ ...file, hash: await hashOf(file) })))

const SOUND = 'sound.mp4'
const chunkName = (number: number): string => `chunk-${number}.mp4`

/** Puts all chunks into the folder. */
async function renderPicture(
  job: RenderJob,
  plan: PicturePlan,
  { folder, signal, chunked }: Work,
): Promise<Pick<Rendered, 'made' | 'madeMs'> & { chunkKeys: string[] | null }> {
  const { chunks } = plan
  const keys = chunked ? await chunkKeysOf(job, plan) : null
  const numbers = new Map(chunks.map((chunk, number) => [chunk, number]))
  const placeOf = (chunk: Piece): string => join(folder, chunkName(numbers.get(chunk) ?? 0))
  const keyOf = (chunk: Piece): string => keys?.[numbers.get(chunk) ?? 0] ?? ''
  const lacking = async (wanted: readonly Piece[]): Promise<Piece[]> => {
    if (!chunked) return [...wanted]
    const there = await Promise.all(wanted.map((chunk) => chunked.store.take(keyOf(chunk), placeOf(chunk))))
    return wanted.filter((_, at) => !there[at])
  }
  let missing = await lacking(chunks)
  const made = { made: missing.length, madeMs: sum(missing.map(({ lengthMs }) => lengthMs)) }
  if (chunked?.renderRows) {
    const onProgress = (share: Share): void => job.onProgress?.(share)
    await chunked.renderRows(rowsOf(missing, MOST_IN_A_ROW), { chunks, onProgress, signal })
    missing = await lacking(missing)
  }
  await renderHere(job, plan, missing, {
    ...{ folder, signal },
    onChunk: async (chunk, path) => {
      await chunked?.store.keep(keyOf(chunk), path)
      await rename(path, placeOf(chunk))
    },
  })
  return { ...made, chunkKeys: keys }
}

/** So many chunks at most are encoded in one pass, so that all lanes are done at about the same time. */
const MOST_IN_A_ROW = 3

/** Rows beside each other, each in a lane of its own. */
async function renderHere(
  job: RenderJob,
  plan: PicturePlan,
  chunks: readonly Piece[],
  work: Omit<RowWork, 'onProgress'>,
): Promise<void> {
  const rows = rowsOf(chunks, MOST_IN_A_ROW)
  const total = framesOf(chunks)
  const shares = new Map<number, number>()
  const waiting = [...rows.entries()].reverse()
  const halt = new AbortController()
  const signal = AbortSignal.any([work.signal, halt.signal])
  const lane = async (): Promise<void> => {
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      const [number, row] = next
      const onProgress = (share: Share): void => {
        shares.set(number, share * framesOf(row))
        job.onProgress?.(sum([...shares.values()]) / total)
      }
      await renderRow(job, plan, row, { ...work, signal, onProgress })
      onProgress(1)
    }
  }
  const working = Array.from({ length: lanes() }, lane)
  try {
    await Promise.all(working)
  } catch (error) {
    // None is still at work on the folder when this returns.
    halt.abort()
    await Promise.allSettled(working)
    throw error
  }
}

/** Puts the sound into the folder. @returns its key where it is kept. */
async function renderSoundOnce(
  job: RenderJob,
  plan: SoundPlan,
  { folder, signal, chunked, facts }: Work & { facts: FootageFacts },
): Promise<string | null> {
  const out = join(folder, SOUND)
  const key = chunked ? await soundKeyOf(job, plan) : null
  if (key !== null && (await chunked?.store.take(key, out))) return key
  await renderSound(job, { plan, facts, out, folder, signal })
  if (key !== null) await chunked?.store.keep(key, out)
  return key
}

/** Chunks end to end, and the sound, without encoding again. */
async function joinUp(job: RenderJob, { chunks }: PicturePlan, { folder, signal }: Work): Promise<void> {
  const list = join(folder, 'chunks.txt')
  const lines = chunks.map(({ lengthMs }, at) => `file ${chunkName(at)}\nduration ${(lengthMs / 1000).toFixed(6)}\n`)
  await writeFile(list, `ffconcat version 1.0\n${lines.join('')}`)
  await runTool(
    'ffmpeg',
    [
      ...[...QUIET, '-f', 'concat', '-safe', '0', '-i', list, '-i', join(folder, SOUND)],
      ...['-map', '0:v', '-map', '1:a', '-c', 'copy', '-movflags', '+faststart', '-f', 'mp4', `file:${job.out}`],
    ],
    { signal, limitMs: patience(job.cut.outMs, 2) },
  )
}
