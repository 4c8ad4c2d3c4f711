// Parts of a render as jobs of their own: whoever has a worker at this database may take one.
import { Problem } from '../core/problem'
import { framesOf } from '../core/render/plan'
import type { Piece } from '../core/render/runs'
import { sum } from '../core/sum'
import type { Ms, Share } from '../core/units'
import type { InHardware } from '../engine/encoding'
import { encoderHere } from '../engine/hardware'
import { programStamp } from '../engine/program'
import type { PictureJob } from '../engine/renderJob'
import { inTransaction, sql } from './db'
import { CANCELS, tell, WAITING, type Db, type Job } from './jobs'
import { storedFile } from './store'

/** What a picture is made of, with its files by their hashes: each machine has them elsewhere. */
type PictureKept = Omit<PictureJob, 'reel'> & { reel: { hash: string; facts: PictureJob['reel'][number]['facts'] }[] }

const keptPicture = ({ reel, cut, shown, viewing, look, framing, purpose, encoder }: PictureJob): PictureKept => ({
  reel: reel.map(({ hash, facts }) => {
    if (hash === undefined) throw new Error('a file of a render without its hash')
    return { hash, facts }
  }),
  ...{ cut, shown },
  ...(viewing ? { viewing } : {}),
  ...(look ? { look } : {}),
  ...(framing ? { framing } : {}),
  ...(purpose ? { purpose } : {}),
  ...(encoder ? { encoder } : {}),
})

/** What a part of a picture has to be made by, so that all of them fit: this program and, in hardware, its encoder. */
export const makerOf = (encoder: InHardware | undefined): string =>
  [programStamp(), ...(encoder ? [encoder] : [])].join(' ')

/** Of whose parts this machine can make. */
export const makersHere = async (): Promise<string[]> => [
  ...new Set([makerOf(undefined), makerOf(await encoderHere())]),
]

/** @throws Problem `claim-lost` where the render is over, `store-away`, `cancelled`. */
export async function pictureOf(parentId: string, signal: AbortSignal): Promise<PictureJob> {
  const [row] = await sql()<{ picture: PictureKept | null }[]>`select picture from jobs where id = ${parentId}`
  if (!row?.picture) throw new Problem({ code: 'claim-lost' })
  const { reel, ...picture } = row.picture
  const files = reel.map(async ({ hash, facts }) => ({ path: await storedFile(hash, signal), hash, facts }))
  return { ...picture, reel: await Promise.all(files) }
}

const LOOK_MS: Ms = 300

interface Asking {
  picture: PictureJob
  /** All chunks of the video. */
  chunks: readonly Piece[]
  signal: AbortSignal
  onProgress: (share: Share) => void
}

/**
 * Has rows of chunks rendered by whoever takes them, and waits for the last.
 * @throws Problem `part-failed` with what one of them failed for, or `cancelled`; then none goes on.
 */
export async function renderParts(
  job: Job,
  rows: readonly (readonly Piece[])[],
  { picture, chunks, signal, onProgress }: Asking,
): Promise<void> {
  const frames = new Map<string, number>()
  const maker = makerOf(picture.encoder)
  const total = framesOf(rows.flat())
  const madeMs = sum(rows.flat().map(({ lengthMs }) => lengthMs))
  await inTransaction(async (tx) => {
    // Of an attempt before this one.
    await dropParts(job.id, tx)
    // As text: keys of chunks are made of what is told, in the order in which it is told.
    const told = JSON.stringify(keptPicture(picture))
    await tx`update jobs set picture = ${told}::text::json, made_ms = ${madeMs} where id = ${job.id}`
    for (const row of rows) {
      const [first, last] = [row[0], row.at(-1)].map((chunk) => (chunk ? chunks.indexOf(chunk) : -1))
      const [made] = await tx<{ id: string }[]>`
        insert into jobs (kind, workout_id, parent_id, program, first_chunk, last_chunk)
        values ('chunks', ${job.workoutId}, ${job.id}, ${maker}, ${first ?? 0}, ${last ?? 0}) returning id`
      if (made) frames.set(made.id, framesOf(row))
    }
    await tell(tx, WAITING, 'chunks')
  })
  try {
    for (;;) {
      signal.throwIfAborted()
      const parts = await sql()<{ id: string; state: Job['state']; share: Share; problem: string | null }[]>`
        select id, state, share, problem from jobs where parent_id = ${job.id}`
      const failed = parts.find(({ state }) => state === 'failed' || state === 'cancelled')
      if (failed) throw new Problem({ code: 'part-failed', reason: failed.problem ?? '' })
      const done = sum(parts.map(({ id, state, share }) => (frames.get(id) ?? 0) * (state === 'done' ? 1 : share)))
      onProgress(total ? done / total : 1)
      if (parts.every(({ state }) => state === 'done')) return
      await new Promise((resolve) => setTimeout(resolve, LOOK_MS))
    }
  } finally {
    await inTransaction((tx) => dropParts(job.id, tx))
  }
}

/** A part of the render is done, and kept whatever comes: what broke it off before counts no more. */
export async function gotOn(parentId: string, db: Db): Promise<void> {
  await db`update jobs set attempts = least(attempts, 1) where id = ${parentId}`
}

/** Whoever has one in hand is told, and loses it. */
async function dropParts(parentId: string, db: Db): Promise<void> {
  const live = await db<{ id: string }[]>`
    delete from jobs where parent_id = ${parentId} and state in ('queued', 'active') returning id`
  for (const { id } of live) await tell(db, CANCELS, id)
  await db`delete from jobs where parent_id = ${parentId}`
  await db`update jobs set picture = null where id = ${parentId}`
}
