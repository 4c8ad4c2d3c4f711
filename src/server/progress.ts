// What the page is told while long work runs: footage, jobs and the newest pack of a workout, in a form it can use.
import type { FootageFacts } from '../engine/probe'
import { newestFootage, currentFootage } from './footage'
import { recentJobs, type Job } from './jobs'
import { newestPack } from './packs'

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
  share: number
  problem: string | null
  /** Reckoned from what is done so far; null until there is enough to reckon from. */
  leftMs: number | null
}

export interface PackProgress {
  id: string
  title: string
  videoBytes: number
  createdAt: string
  chapters: string
}

export interface Progress {
  footage: FootageProgress | null
  /** The last upload, when it failed and older footage is still in use. */
  failedUpload: { name: string; problem: string } | null
  jobs: JobProgress[]
  pack: PackProgress | null
}

export async function progressOf(workoutId: string): Promise<Progress> {
  const [current, newest, jobs, pack] = await Promise.all([
    currentFootage(workoutId),
    newestFootage(workoutId),
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
        ? { name: newest.name, problem: newest.problem ?? '' }
        : null,
    jobs: jobs.map((job) => ({
      id: job.id,
      kind: job.kind,
      state: job.state,
      share: job.share,
      problem: job.problem,
      leftMs: timeLeft(job, Date.now()),
    })),
    pack: pack && {
      id: pack.id,
      title: pack.title,
      videoBytes: pack.videoBytes,
      createdAt: pack.createdAt.toISOString(),
      chapters: pack.chapters,
    },
  }
}

/** @param now milliseconds since the epoch. */
export function timeLeft(job: Pick<Job, 'state' | 'share' | 'startedAt'>, now: number): number | null {
  if (job.state !== 'active' || !job.startedAt || job.share < 0.02) return null
  return Math.round(((now - job.startedAt.getTime()) / job.share) * (1 - job.share))
}
