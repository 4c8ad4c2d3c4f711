// How far a workout is: the one place that decides what is done of it, and what a video no longer shows.
import { createHash } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import { todoOf } from '../core/align/todo'
import { cutWishesSchema } from '../core/cut/fit'
import { AS_FILMED, framingSchema } from '../core/cut/framing'
import { cueWishesSchema } from '../core/cue/wishes'
import { tryExpand } from '../core/expand/expand'
import { lookSchema } from '../core/look/looks/family'
import { shownOf } from '../core/render/shown'
import { scoreSchema, type Score } from '../core/score/score'
import { mixSchema } from '../core/sound/mix'
import { sql } from './db'
import { currentFootage } from './footage'
import { newestPack, type Pack } from './packs'
import { reelOf, type Reel } from './reel'
import { wasFilmedHere } from './sessions'
import { listStitches } from './stitches'
import { findWorkout } from './workouts'

/** Steps on the way from score to ship that are done; a step that has to be gone back to is not. */
export interface Done {
  score: boolean
  floor: boolean
  sync: boolean
  ship: boolean
}

/** @throws Problem `not-found`. */
export async function doneOf(workoutId: string): Promise<Done> {
  const [{ score }, footage, pack, filmed] = await Promise.all([
    findWorkout(workoutId),
    currentFootage(workoutId),
    newestPack(workoutId),
    wasFilmedHere(workoutId),
  ])
  return {
    score: score.sections.length > 0,
    floor: filmed,
    sync: footage?.state === 'ready' && (await leftToDo(workoutId, score)) === 0,
    ship: pack !== null && !isOutdated(await changedSince(pack, await reelOf(workoutId))),
  }
}

/** How many questions the ties leave; null where nothing is tied. */
export async function leftToDo(workoutId: string, score: Score): Promise<number | null> {
  const { stitches } = await listStitches(workoutId)
  return stitches.length ? todoOf(tryExpand(score).expansion?.segments ?? [], stitches).length : null
}

/** What has changed since a video was made. */
export interface Changed {
  score: boolean
  ties: boolean
  footage: boolean
  cut: boolean
  look: boolean
  framing: boolean
  sound: boolean
}

export const isOutdated = (changed: Changed): boolean => Object.values(changed).some(Boolean)

/** One value for all scores of which a video shows the same. */
export const shownKey = (score: Score): string =>
  createHash('sha256')
    .update(JSON.stringify(shownOf(score)))
    .digest('hex')

/** What a video that was made of other things no longer shows. Where nothing was written down, nothing is claimed. */
export async function changedSince(pack: Pack, { files }: Reel): Promise<Changed> {
  const [now] = await sql()<
    { score: number; ties: number; cut: unknown; look: unknown; framing: unknown; cues: unknown; mix: unknown }[]
  >`
    select score_revision as score, cut, look, framing, cues, mix, stitch_revision as ties from workouts where id = ${pack.workoutId}`
  const unlike = (then: number | null, since: number | null | undefined): boolean => then !== null && then !== since
  const ids = files.map(({ id }) => id)
  const otherFootage = pack.reel !== null && !isDeepStrictEqual(pack.reel, ids)
  return {
    score: unlike(pack.scoreRevision, now?.score) && !(await showsTheSame(pack)),
    ties: !otherFootage && unlike(pack.stitchRevision, now?.ties),
    footage: otherFootage,
    cut: !isDeepStrictEqual(pack.cut, cutWishesSchema.parse(now?.cut ?? {})),
    look: !isDeepStrictEqual(pack.look, lookSchema.parse(now?.look ?? {})),
    framing: !isDeepStrictEqual(pack.framing ?? AS_FILMED, framingSchema.parse(now?.framing ?? {})),
    sound:
      (pack.cues !== null && !isDeepStrictEqual(pack.cues, cueWishesSchema.parse(now?.cues ?? {}))) ||
      (pack.mix !== null && !isDeepStrictEqual(pack.mix, mixSchema.parse(now?.mix ?? {}))),
  }
}

/** Whether the score of now, though saved since, shows what the video shows. */
async function showsTheSame({ workoutId, scoreShown }: Pack): Promise<boolean> {
  if (scoreShown === null) return false
  const [row] = await sql()<{ score: unknown }[]>`select score from workouts where id = ${workoutId}`
  const read = scoreSchema.safeParse(row?.score)
  return read.success && shownKey(read.data) === scoreShown
}
