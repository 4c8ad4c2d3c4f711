// What the page is told while long work runs: footage, jobs and the newest pack of a workout, in a form it can use.
import { isDeepStrictEqual } from 'node:util'
import { cutWishesSchema } from '../core/cut/fit'
import type { FootageFacts } from '../engine/probe'
import { currentFootage, footageAside, heardSoFar, newestFootage, type FootageAside, type HeardSoFar } from './footage'
import { recentJobs, type Job } from './jobs'
import { sql } from './db'
import { newestPack, type Pack } from './packs'
import type { Share } from '../core/units'

export interface FootageProgress {
  id: string
  name: string
  bytes: number
  state: 'preparing' | 'ready' | 'failed'
  problem: string | null
  warning: string | null
  facts: FootageFacts | null
  hasPeaks: boolean
}

export interface JobProgress {
  id: string
  kind: Job['kind']
  state: Job['state']
  share: Share
  problem: string | null
  /** Reckoned from what is done so far; null until there is enough to reckon from. */
  leftMs: number | null
  /** What was heard so far, while footage is being listened to. */
  heard: HeardSoFar
}

export interface PackProgress {
  id: string
  title: string
  videoBytes: number
  createdAt: string
  chapters: string
  /** Which revision of the score it shows; null where that was not written down. */
  scoreRevision: number | null
  /** What has changed since it was made. */
  changed: { score: boolean; ties: boolean; footage: boolean; cut: boolean }
}

export interface Progress {
  footage: FootageProgress | null
  /** The last upload, when it failed and older footage is still in use. */
  failedUpload: { id: string; name: string; problem: string } | null
  /** Footage that was put aside and can be had back, with its ties. */
  aside: FootageAside[]
  jobs: JobProgress[]
  pack: PackProgress | null
}

export async function progressOf(workoutId: string): Promise<Progress> {
  const [current, newest, aside, jobs, pack] = await Promise.all([
    currentFootage(workoutId),
    newestFootage(workoutId),
    footageAside(workoutId),
    recentJobs(workoutId),
    newestPack(workoutId),
  ])
  return {
    footage: current && {
      id: current.id,
      name: current.name,
      bytes: current.bytes,
      state: current.state,
      problem: current.problem,
      warning: current.warning,
      facts: current.facts,
      hasPeaks: current.peaksHash !== null,
    },
    failedUpload:
      newest?.state === 'failed' && newest.id !== current?.id
        ? { id: newest.id, name: newest.name, problem: newest.problem ?? '' }
        : null,
    aside,
    jobs: await Promise.all(
      jobs.map(async (job) => ({
        id: job.id,
        kind: job.kind,
        state: job.state,
        share: job.share,
        problem: job.problem,
        leftMs: timeLeft(job, Date.now()),
        heard: job.kind === 'prepare' && job.state === 'active' && job.footageId ? await heardSoFar(job.footageId) : {},
      })),
    ),
    pack: pack && {
      id: pack.id,
      title: pack.title,
      videoBytes: pack.videoBytes,
      createdAt: pack.createdAt.toISOString(),
      chapters: pack.chapters,
      scoreRevision: pack.scoreRevision,
      changed: await changedSince(pack, current?.id ?? null),
    },
  }
}

/**
 * What a video that was made of other revisions no longer shows. Where nothing was written down, nothing is claimed.
 */
async function changedSince(pack: Pack, currentId: string | null): Promise<PackProgress['changed']> {
  const [now] = await sql()<{ score: number; ties: number | null; cut: unknown }[]>`
    select score_revision as score, cut, (select stitch_revision from footage where id = ${currentId}) as ties
    from workouts where id = ${pack.workoutId}`
  const unlike = (then: number | null, since: number | null | undefined): boolean => then !== null && then !== since
  const otherFootage = pack.footageId !== null && pack.footageId !== currentId
  return {
    score: unlike(pack.scoreRevision, now?.score),
    ties: !otherFootage && unlike(pack.stitchRevision, now?.ties),
    footage: otherFootage,
    cut: !isDeepStrictEqual(pack.cut, cutWishesSchema.parse(now?.cut ?? {})),
  }
}

/** @param now milliseconds since the epoch. */
export function timeLeft(job: Pick<Job, 'state' | 'share' | 'startedAt'>, now: number): number | null {
  if (job.state !== 'active' || !job.startedAt || job.share < 0.02) return null
  return Math.round(((now - job.startedAt.getTime()) / job.share) * (1 - job.share))
}
