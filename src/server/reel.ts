// The reel of a workout: its files in order, end to end, and second cameras beside them. What is put aside keeps all
// that belongs to it. Every change of the reel moves ties in the time of the whole: who saves them says of which reel.
import { filmedOrder, type OrderedBy } from '../core/align/order'
import type { Tie } from '../core/align/ties'
import { inReel, type Edit } from '../core/cut/edited'
import type { Camera } from '../core/cut/cameras'
import { filmedFrom, type CutWishes, type Filmed } from '../core/cut/fit'
import type { TreatedStretch } from '../core/cut/treated'
import type { Evidence } from '../core/evidence'
import { filesInRow } from '../core/filesInRow'
import { Problem } from '../core/problem'
import type { Segment } from '../core/score/segment'
import { sum } from '../core/sum'
import type { Ms } from '../core/units'
import { joinedReel } from '../core/align/reel'
import type { FootageFacts } from '../engine/probe'
import { inTransaction, sql } from './db'
import { evidenceOf, footageWhere, type Footage } from './footage'
import type { Db } from './jobs'
import { storedFile } from './store'

/** Footage that can be worked with. */
export interface ReelFile extends Footage {
  facts: FootageFacts
}
export interface CameraFile extends ReelFile {
  beside: NonNullable<Footage['beside']>
}

export interface Reel {
  files: ReelFile[]
  cameras: CameraFile[]
  /** What the order is by. */
  orderedBy: OrderedBy | 'hand'
  /** Of the files together. */
  footageMs: Ms
}

const isReady = (footage: Footage): footage is ReelFile => footage.state === 'ready' && footage.facts !== null

/** @returns the reel; without files where nothing is ready. */
export async function reelOf(workoutId: string, db: Db = sql()): Promise<Reel> {
  const all = await footageWhere(
    db`where workout_id = ${workoutId} and put_aside_at is null and state = 'ready' order by place, created_at`,
    db,
  )
  const files = all.filter(isReady).filter(({ place }) => place !== null)
  const cameras = all.filter(isReady).filter((one): one is CameraFile => {
    return one.place === null && files.some(({ id }) => id === one.beside?.id)
  })
  const [row] = await db<{ byHand: boolean }[]>`
    select ordered_by_hand as "byHand" from workouts where id = ${workoutId}`
  const orderedBy = row?.byHand ? 'hand' : filmedOrder(files.map(filed)).by
  return { files, cameras, orderedBy, footageMs: sum(lengthsOf(files)) }
}

/** All files as they lie end to end: those of the reel, then the cameras behind them. */
export const endToEnd = ({ files, cameras }: Pick<Reel, 'files' | 'cameras'>): ReelFile[] => [...files, ...cameras]

/** A file as the engine takes it. */
export const recorded = async ({
  hash,
  facts,
}: ReelFile): Promise<{ path: string; hash: string; facts: FootageFacts }> => ({
  ...{ path: await storedFile(hash ?? ''), hash: hash ?? '', facts },
})

/** Another one where there are other files, or another order. */
export const keyOf = (reel: Pick<Reel, 'files' | 'cameras'>): string =>
  endToEnd(reel)
    .map(({ id }) => id)
    .join()

export const lengthsOf = (files: readonly ReelFile[]): Ms[] => files.map(({ facts }) => facts.durationMs)

/** Second cameras as a cut asks for them. */
export function camerasOf(reel: Reel): Camera[] {
  const { beginMs } = filesInRow(lengthsOf(endToEnd(reel)))
  return reel.cameras.map(({ id, beside, facts }, at) => {
    const main = reel.files.findIndex((one) => one.id === beside.id)
    const fromMs = beginMs[reel.files.length + at] ?? 0
    return {
      ...{ id, fromMs, toMs: fromMs + facts.durationMs },
      ...{ atMs: (beginMs[main] ?? 0) + beside.atMs, driftPpm: beside.driftPpm },
    }
  })
}

/** Dead stretches of files in the time of the whole; those of files that are not in the reel wait. */
export function deadIn(reel: Reel, { dead }: Pick<CutWishes, 'dead'>): TreatedStretch[] {
  const { beginMs } = filesInRow(lengthsOf(endToEnd(reel)))
  return dead.flatMap(({ footage, fromMs, toMs, as }) => {
    const begin = beginMs[endToEnd(reel).findIndex(({ id }) => id === footage)]
    return begin === undefined ? [] : [{ fromMs: begin + fromMs, toMs: begin + toMs, as }]
  })
}

/** What another program made of files, in the time of the whole; none where one of them is not in the reel any more. */
export function editsIn({ files }: Reel, { edits }: Pick<CutWishes, 'edits'>): Edit[] {
  const placed = edits.map(({ footage, ...edit }) => ({ ...edit, file: files.findIndex(({ id }) => id === footage) }))
  return placed.some(({ file }) => file < 0) ? [] : inReel(placed, lengthsOf(files))
}

/** All that a cut of the workout is made from. */
export async function filmedOf(
  reel: Reel,
  segments: readonly Segment[],
  ties: readonly Tie[],
  wishes: CutWishes,
): Promise<Filmed> {
  const heard = await evidenceOfReel(reel)
  return filmedFrom(segments, ties, {
    ...reel,
    heard,
    cameras: camerasOf(reel),
    dead: deadIn(reel, wishes),
    edits: editsIn(reel, wishes),
  })
}

/** What was heard in all files, in the time of the whole. */
export async function evidenceOfReel({ files }: Reel): Promise<Evidence[]> {
  const heard = await Promise.all(files.map(({ id }) => evidenceOf(id)))
  return joinedReel(files.map(({ facts }, at) => ({ evidence: heard[at] ?? [], footageMs: facts.durationMs }))).evidence
}

const filed = (file: ReelFile): ReelFile & { recordedMs: number | null } => ({
  ...file,
  recordedMs: file.facts.recordedMs,
})

/**
 * Takes footage into the reel: in the place of what it replaces or was replaced by, beside the file whose sound it
 * shares, or as a file of its own.
 * @throws Problem `not-found`.
 */
export async function takeIntoReel(id: string, db?: Db): Promise<void> {
  if (!db) return inTransaction((tx) => takeIntoReel(id, tx))
  const footage = await lockedReel(id, db)
  const { files } = await reelOf(footage.workoutId, db)
  const outgoing = files.find((one) => one.id === footage.replaces) ?? (await replacementOf(id, files, db))
  const others = files.filter((one) => one.id !== id && one.id !== outgoing?.id)
  const isCamera = footage.place === null && others.some((one) => standsBeside(footage, one))
  if (outgoing)
    await db`
      update footage set place = null, put_aside_at = now(), replaced_by = ${id}
      where id = ${outgoing.id} or (beside = ${outgoing.id} and place is null and put_aside_at is null and id <> ${id})`
  await db`update footage set put_aside_at = null, replaces = null, replaced_by = null where id = ${id}`
  const order = outgoing
    ? files.map((one) => (one.id === outgoing.id ? id : one.id)).filter((one, at, all) => all.indexOf(one) === at)
    : isCamera
      ? others.map((one) => one.id)
      : [...others.map((one) => one.id), id]
  await placeFiles(footage.workoutId, order, db)
  await orderAnew(footage.workoutId, db)
}

/** So much of a second camera is of what the first has; a file that goes on much longer is one of its own. */
const LEAST_SHARED = 0.8

/** How long both show the same. @returns null where they were not found to. */
export function sharedMs({ beside, facts }: Footage, other: ReelFile): Ms | null {
  if (beside?.id !== other.id || !facts) return null
  return Math.max(0, Math.min(beside.atMs + facts.durationMs, other.facts.durationMs) - Math.max(0, beside.atMs))
}

const standsBeside = (footage: Footage, other: ReelFile): boolean =>
  (sharedMs(footage, other) ?? 0) >= LEAST_SHARED * (footage.facts?.durationMs ?? Infinity)

/** What in the reel took the place of this one, or of what took its place, and so on. */
async function replacementOf(id: string, files: readonly ReelFile[], db: Db): Promise<ReelFile | undefined> {
  const seen = new Set<string>()
  for (let at: string | null = id; at !== null && !seen.has(at);) {
    seen.add(at)
    const [row]: { by: string | null }[] = await db<{ by: string | null }[]>`
      select replaced_by as by from footage where id = ${at}`
    at = row?.by ?? null
    const found = files.find((one) => one.id === at)
    if (found) return found
  }
  return undefined
}

/** Takes a footage out of the reel; it can be had back. @throws Problem `not-found`. */
export async function putAside(id: string): Promise<void> {
  await inTransaction(async (tx) => {
    const { workoutId } = await lockedReel(id, tx)
    // Second cameras have nothing to stand beside without it.
    await tx`
      update footage set place = null, put_aside_at = now(), replaced_by = null
      where id = ${id} or (beside = ${id} and place is null and put_aside_at is null)`
    const { files } = await reelOf(workoutId, tx)
    await placeFiles(
      workoutId,
      files.map((one) => one.id),
      tx,
    )
  })
}

/** A second upload of a file that is there: the file is taken back with all its ties, and the upload forgotten. */
export async function becomeTwin(tx: Db, footageId: string, twinId: string): Promise<void> {
  await lockWorkoutOf(footageId, tx)
  // Jobs go with their footage; this one is under way.
  await tx`update jobs set footage_id = null where footage_id = ${footageId}`
  await tx`
    update footage set replaces = (select replaces from footage where id = ${footageId}) where id = ${twinId}`
  await tx`delete from footage where id = ${footageId}`
  await takeIntoReel(twinId, tx)
}

/**
 * Puts the files in an order.
 * @param order ids of all files of the reel; null for the order in which they were filmed.
 * @throws Problem `stale` where these are not the files of the reel.
 */
export async function orderReel(workoutId: string, order: readonly string[] | null): Promise<void> {
  await inTransaction(async (tx) => {
    await tx`update workouts set ordered_by_hand = ${order !== null} where id = ${workoutId}`
    const { files } = await reelOf(workoutId, tx)
    if (!order) return orderAnew(workoutId, tx)
    if (order.length !== files.length || files.some(({ id }) => !order.includes(id)))
      throw new Problem({ code: 'reel-changed' })
    await placeFiles(workoutId, order, tx)
  })
}

/** Makes a file of its own out of a second camera. @throws Problem `not-found`. */
export async function standAlone(id: string): Promise<void> {
  await inTransaction(async (tx) => {
    await lockedReel(id, tx)
    await tx`update footage set beside = null, beside_ms = null, beside_ppm = 0 where id = ${id}`
    await takeIntoReel(id, tx)
  })
}

/** Every transaction that changes footage takes its workout first: two never wait for each other. */
export async function lockWorkoutOf(footageId: string, tx: Db): Promise<void> {
  await tx`
    select 1 from workouts where id = (select workout_id from footage where id = ${footageId}) for update`
}

/** Nobody else changes the reel of this footage until the transaction ends. @throws Problem `not-found`. */
async function lockedReel(id: string, tx: Db): Promise<Footage> {
  await lockWorkoutOf(id, tx)
  const [footage] = await footageWhere(tx`where id = ${id} for update`, tx)
  if (!footage) throw new Problem({ code: 'not-found', what: 'footage' })
  return footage
}

/** The order in which they were filmed, unless somebody has put them in one by hand. */
async function orderAnew(workoutId: string, tx: Db): Promise<void> {
  const { files, orderedBy } = await reelOf(workoutId, tx)
  if (files.length < 2 || orderedBy === 'hand') return
  const order = filmedOrder(files.map(filed)).files.map(({ id }) => id)
  await placeFiles(workoutId, order, tx)
}

async function placeFiles(workoutId: string, order: readonly string[], tx: Db): Promise<void> {
  await tx`update footage set place = null where workout_id = ${workoutId} and place is not null`
  for (const [place, id] of order.entries()) await tx`update footage set place = ${place} where id = ${id}`
}
