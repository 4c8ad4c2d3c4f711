// Packs: what was rendered, ready to download.
import { cutWishesSchema, type CutWishes } from '../core/cut/fit'
import { framingSchema, type Framing } from '../core/cut/framing'
import { cueWishesSchema, type CueWishes } from '../core/cue/wishes'
import { lookSchema, type LookWish } from '../core/look/looks/family'
import { mixSchema, type Mix } from '../core/sound/mix'
import type { Verified } from '../core/proof/verify'
import type { Purpose } from '../core/render/purpose'
import { Problem } from '../core/problem'
import type { Ms } from '../core/units'
import { sql } from './db'
import { tellChange, type Db } from './jobs'
import { clipped } from '../core/text'
import type { InHardware } from '../engine/encoding'

export interface Pack {
  id: string
  workoutId: string
  jobId: string
  title: string
  videoHash: string
  videoBytes: number
  captions: string
  chapters: string
  /** As it goes along, with what somebody changed of it. */
  description: string
  /** As Jivet wrote it. */
  written: string
  /** In how many places a change that was carried over met another one. */
  clashes: number
  purpose: Purpose
  /**
   * What it shows: the revisions of score and ties, and the files. Null where an older Jivet did not write it down.
   */
  scoreRevision: number | null
  stitchRevision: number | null
  /** Of what content of the score (`shownKey`); null where it was not written down. */
  scoreShown: string | null
  /** Ids of its files in order. */
  reel: string[] | null
  cut: CutWishes
  look: LookWish
  /** Null where it was not written down; then all was shown that was filmed. */
  framing: Framing | null
  /** Null where they were not written down. */
  cues: CueWishes | null
  mix: Mix | null
  /** What it was found to be; null where nobody looked. */
  verified: Verified | null
  /** How it was rendered; null where that was not written down. */
  rendered: RenderedPack | null
  createdAt: Date
}

/** Of how many chunks, how many of them were made for it and how long those are, and how long all of it took. */
export interface RenderedPack {
  chunks: number
  made: number
  madeMs: Ms
  tookMs: Ms
  /** The encoder of the picture, where it was hardware. */
  encoder?: InHardware
}

interface Row {
  id: string
  workout_id: string
  job_id: string
  title: string
  video_hash: string
  video_bytes: string
  captions: string
  chapters: string
  description: string
  written: string
  clashes: number
  purpose: Purpose
  score_revision: number | null
  stitch_revision: number | null
  score_shown: string | null
  reel: string[] | null
  cut: unknown
  look: unknown
  framing: unknown
  cues: unknown
  mix: unknown
  verified: Verified | null
  rendered: RenderedPack | null
  created_at: Date
}

const fromRow = (row: Row): Pack => ({
  id: row.id,
  workoutId: row.workout_id,
  jobId: row.job_id,
  title: row.title,
  videoHash: row.video_hash,
  videoBytes: Number(row.video_bytes),
  captions: row.captions,
  chapters: row.chapters,
  description: row.description,
  written: row.written,
  clashes: row.clashes,
  purpose: row.purpose,
  scoreRevision: row.score_revision,
  stitchRevision: row.stitch_revision,
  scoreShown: row.score_shown,
  reel: row.reel,
  cut: cutWishesSchema.parse(row.cut ?? {}),
  look: lookSchema.parse(row.look),
  framing: row.framing === null ? null : framingSchema.parse(row.framing),
  cues: row.cues === null ? null : cueWishesSchema.parse(row.cues),
  mix: row.mix === null ? null : mixSchema.parse(row.mix),
  verified: row.verified,
  rendered: row.rendered,
  createdAt: row.created_at,
})

/** So many of one purpose are kept. */
const KEPT = 3

/** Adds a video; of its purpose the last `KEPT` stay, and what was published. */
export async function addPack(pack: Omit<Pack, 'id' | 'createdAt'>, db: Db = sql()): Promise<void> {
  await db`insert into packs ${db({
    workout_id: pack.workoutId,
    job_id: pack.jobId,
    title: pack.title,
    video_hash: pack.videoHash,
    video_bytes: pack.videoBytes,
    captions: pack.captions,
    chapters: pack.chapters,
    description: pack.description,
    written: pack.written,
    clashes: pack.clashes,
    purpose: pack.purpose,
    score_revision: pack.scoreRevision,
    stitch_revision: pack.stitchRevision,
    score_shown: pack.scoreShown,
    reel: pack.reel,
    cut: db.json(pack.cut),
    look: db.json(pack.look),
    framing: pack.framing && db.json(pack.framing),
    cues: pack.cues && db.json(pack.cues),
    mix: pack.mix && db.json(pack.mix),
    verified: pack.verified && db.json(pack.verified as never),
    rendered: pack.rendered && db.json(pack.rendered as never),
  })}`
  // Held first: what is being published meanwhile is seen by the statement after it.
  const older = await db<{ id: string }[]>`
    select id from packs where workout_id = ${pack.workoutId} and purpose = ${pack.purpose}
    order by created_at desc, id desc offset ${KEPT} for update`
  await db`
    delete from packs where id = any(${older.map(({ id }) => id)})
      and not exists (select 1 from publications where pack_id = packs.id)`
}

export async function newestPack(workoutId: string): Promise<Pack | null> {
  const [row] = await sql()<Row[]>`select * from packs where workout_id = ${workoutId} order by created_at desc limit 1`
  return row ? fromRow(row) : null
}

/** A video of those that were rendered before the newest. */
export interface EarlierPack {
  id: string
  purpose: Purpose
  videoBytes: number
  createdAt: Date
  isPublished: boolean
}

/** All but the newest, the newest first. */
export async function earlierPacks(workoutId: string): Promise<EarlierPack[]> {
  const rows = await sql()<(Omit<EarlierPack, 'videoBytes'> & { bytes: string })[]>`
    select id, purpose, video_bytes as bytes, created_at as "createdAt",
      exists (select 1 from publications where pack_id = packs.id) as "isPublished"
    from packs where workout_id = ${workoutId} order by created_at desc offset 1`
  return rows.map(({ bytes, ...row }) => ({ ...row, videoBytes: Number(bytes) }))
}

/** @throws Problem `not-found`. */
export async function saveDescription(id: string, description: string): Promise<void> {
  const [row] = await sql()<{ workout_id: string }[]>`
    update packs set description = ${description}, clashes = 0 where id = ${id} returning workout_id`
  if (!row) throw new Problem({ code: 'not-found', what: 'video' })
  await tellChange(row.workout_id)
}

/** @throws Problem `not-found`. */
export async function findPack(id: string): Promise<Pack> {
  const [row] = await sql()<Row[]>`select * from packs where id = ${id}`
  if (!row) throw new Problem({ code: 'not-found', what: 'video' })
  return fromRow(row)
}

/** A download's name from a title: letters, digits and hyphens, so that any file system takes it. */
export function downloadName(title: string, ending: string): string {
  const letters = title
    .toWellFormed()
    .normalize('NFKD')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
  const stem = clipped(letters, 80)
  return `${stem || 'workout'}${ending}`
}
