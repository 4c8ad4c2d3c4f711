// What the page is told while long work runs: footage, jobs and the newest pack of a workout, in a form it can use.
import type { Verified } from '../core/proof/verify'
import { RENDERED } from '../core/render/plan'
import type { Purpose } from '../core/render/purpose'
import type { FootageFacts } from '../engine/probe'
import {
  currentFootage,
  footageAside,
  heardSoFar,
  newestFootage,
  type Footage,
  type FootageAside,
  type HeardSoFar,
} from './footage'
import { aheadOf, recentJobs, type Job } from './jobs'
import { sql } from './db'
import { earlierPacks, newestPack, type EarlierPack } from './packs'
import { HOSTS, publicationsOf, type Publication } from './publications'
import { keyOf, reelOf, sharedMs, type Reel } from './reel'
import type { Ms, Share } from '../core/units'
import { changedSince, type Changed } from './workoutState'

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
  /** Of a render: how many times as fast as it plays it is made; null until that is known. */
  speed: number | null
  /** What it waits for, where it waits behind others. */
  waitsFor: { title: string; others: number; leftMs: Ms | null } | null
  /** What was heard so far, while footage is being listened to. */
  heard: HeardSoFar
}

export interface PackProgress {
  id: string
  title: string
  videoBytes: number
  lengthMs: Ms
  createdAt: string
  chapters: string
  description: string
  /** As Jivet wrote it, and where a change that was carried over met another. */
  written: string
  clashes: number
  purpose: Purpose
  /** What encoded its picture, where that was hardware. */
  encoder: string | null
  /** Which revision of the score it shows; null where that was not written down. */
  scoreRevision: number | null
  verified: Verified | null
  /** What has changed since it was made. */
  changed: Changed
}

/** A second camera: what it stands beside, and from where on in its time. */
export interface CameraProgress extends FootageProgress {
  beside: { id: string; atMs: Ms }
}

export interface ReelProgress {
  /** Another one where there are other files, or another order. */
  key: string
  /** In order. */
  files: FootageProgress[]
  cameras: CameraProgress[]
  orderedBy: Reel['orderedBy']
  /** Of the files together. */
  footageMs: Ms
  /** Files that show in part what another of them shows. */
  overlaps: { id: string; other: string; byMs: Ms }[]
  /** A file without ties that shares its sound with one that was put aside with some. */
  offer: { id: string; name: string; from: FootageAside } | null
}

export interface Progress {
  /** What the page begins with: the first file of the reel, or what is on its way in. */
  footage: FootageProgress | null
  reel: ReelProgress
  /** The last upload, when it failed and older footage is still in use. */
  failedUpload: { id: string; name: string; problem: string } | null
  /** Footage that was put aside and can be had back, with its ties. */
  aside: FootageAside[]
  jobs: JobProgress[]
  pack: PackProgress | null
  /** Of the videos before it, the newest first. */
  earlierPacks: (Omit<EarlierPack, 'createdAt'> & { createdAt: string })[]
  /** What was handed to hosts; the newest first. */
  published: PublishedProgress[]
}

export interface PublishedProgress {
  id: string
  packId: string
  /** The host's name. */
  host: string
  state: Publication['state']
  reason: string
  page: string | null
}

export async function progressOf(workoutId: string): Promise<Progress> {
  const [reel, current, newest, aside, jobs, pack, earlier, published] = await Promise.all([
    reelOf(workoutId),
    currentFootage(workoutId),
    newestFootage(workoutId),
    footageAside(workoutId),
    recentJobs(workoutId),
    newestPack(workoutId),
    earlierPacks(workoutId),
    publicationsOf(workoutId),
  ])
  return {
    footage: current && footageProgress(current),
    reel: await reelProgress(reel, aside),
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
        speed: speedOf(job, Date.now()),
        waitsFor: job.state === 'queued' ? await waitsFor(job) : null,
        heard: job.kind === 'prepare' && job.state === 'active' && job.footageId ? await heardSoFar(job.footageId) : {},
      })),
    ),
    pack: pack && {
      id: pack.id,
      title: pack.title,
      videoBytes: pack.videoBytes,
      lengthMs: pack.verified?.lengthMs ?? 0,
      createdAt: pack.createdAt.toISOString(),
      chapters: pack.chapters,
      description: pack.description,
      written: pack.written,
      clashes: pack.clashes,
      purpose: pack.purpose,
      encoder: pack.rendered?.encoder ?? null,
      scoreRevision: pack.scoreRevision,
      verified: pack.verified,
      changed: await changedSince(pack, reel),
    },
    earlierPacks: earlier.map((one) => ({ ...one, createdAt: one.createdAt.toISOString() })),
    published: published.map(({ id, packId, host, state, reason, page }) => ({
      ...{ id, packId, host: HOSTS[host]?.name ?? host, state, reason, page },
    })),
  }
}

async function waitsFor(job: Job): Promise<JobProgress['waitsFor']> {
  const ahead = await aheadOf(job)
  return ahead && { title: ahead.title, others: ahead.count - 1, leftMs: timeLeft(ahead.first, Date.now()) }
}

const footageProgress = (one: Footage): FootageProgress => ({
  ...{ id: one.id, name: one.name, bytes: one.bytes, state: one.state, problem: one.problem, warning: one.warning },
  facts: one.facts,
  hasPeaks: one.peaksHash !== null,
})

async function reelProgress({ files, cameras, ...reel }: Reel, aside: readonly FootageAside[]): Promise<ReelProgress> {
  const tied = await tiedFootage(files.map(({ id }) => id))
  const from = (file: Footage): FootageAside | undefined =>
    aside.find(({ id, ties }) => id === file.beside?.id && ties > 0 && !tied.has(file.id))
  const [offer] = files.flatMap((file) => {
    const earlier = from(file)
    return earlier ? [{ id: file.id, name: file.name, from: earlier }] : []
  })
  return {
    ...reel,
    key: keyOf({ files, cameras }),
    files: files.map(footageProgress),
    cameras: cameras.map((one) => ({ ...footageProgress(one), beside: { id: one.beside.id, atMs: one.beside.atMs } })),
    offer: offer ?? null,
    overlaps: files.flatMap((file) =>
      files.flatMap((other) => {
        const byMs = sharedMs(file, other)
        return byMs ? [{ id: file.id, other: other.name, byMs }] : []
      }),
    ),
  }
}

async function tiedFootage(ids: readonly string[]): Promise<Set<string>> {
  const rows = await sql()<
    { id: string }[]
  >`select distinct footage_id as id from stitches where footage_id = any(${[...ids]})`
  return new Set(rows.map(({ id }) => id))
}

/** @param now milliseconds since the epoch. */
export function timeLeft(job: Pick<Job, 'state' | 'share' | 'startedAt'>, now: number): number | null {
  if (job.state !== 'active' || !job.startedAt || job.share < 0.02) return null
  return Math.round(((now - job.startedAt.getTime()) / job.share) * (1 - job.share))
}

/** @param now milliseconds since the epoch. */
export function speedOf(
  { state, share, startedAt, madeMs }: Pick<Job, 'state' | 'share' | 'startedAt' | 'madeMs'>,
  now: number,
): number | null {
  if (state !== 'active' || !startedAt || !madeMs || share < 0.02 || share > RENDERED) return null
  return ((share / RENDERED) * madeMs) / Math.max(1, now - startedAt.getTime())
}
