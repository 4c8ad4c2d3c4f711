// A render shared by workers: its parts are had by whoever takes them, are kept under the keys that the whole looks
// for, and end with it.
import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { beforeEach, describe, expect, it } from 'vitest'
import { followed } from '../src/core/cut/follow'
import { expand } from '../src/core/expand/expand'
import { USUAL_LOOK } from '../src/core/look/looks/family'
import { rowsOf } from '../src/core/render/plan'
import { circuit, score, station } from '../src/core/testing'
import type { InHardware } from '../src/engine/encoding'
import type { PictureJob } from '../src/engine/renderJob'
import type { Job } from '../src/server/jobs'
import { startedDatabase } from './records'

const parts = async () => ({
  ...(await import('../src/server/db')),
  ...(await import('../src/server/jobs')),
  ...(await import('../src/server/parts')),
  ...(await import('../src/server/store')),
  ...(await import('../src/server/tasks/chunks')),
  ...(await import('../src/server/workouts')),
  ...(await import('../src/engine/picturePlan')),
  ...(await import('../src/engine/probe')),
  ...(await import('../src/engine/program')),
})
const PLAN = score(
  circuit({ leadInMs: 4000, workMs: 8000, restMs: 6000, stations: [station('Jug lift'), station('Keel hold')] }),
)
let picture: PictureJob
const home = startedDatabase(async () => {
  await (await import('../src/server/migrate')).migrate()
  const { keepFile, probeFootage } = await parts()
  const film = join(home, 'film.mp4')
  const from = ['-f', 'lavfi', '-i', 'testsrc2=s=160x96:r=10:d=30', '-f', 'lavfi', '-i', 'sine=d=30', '-shortest']
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...from, '-pix_fmt', 'yuv420p', film])
  const facts = await probeFootage(film)
  const { segments } = expand(PLAN)
  const tie = { segmentId: segments[0]!.id, edge: 'start' as const, footageMs: 0 }
  const hash = await keepFile(film)
  const { storedPath } = await parts()
  picture = {
    ...{ reel: [{ path: storedPath(hash), hash, facts }], ...followed(segments, [tie], facts.durationMs) },
    ...{ viewing: PLAN, look: USUAL_LOOK, framing: { shape: 'square', aims: [[{ atMs: 3000, at: 0.3 }]] } },
  }
})
beforeEach(async () => {
  await (await parts()).sql()`delete from workouts`
})

async function renderJob(): Promise<Job> {
  const { addJob, claimJob, createWorkout, sql } = await parts()
  await addJob(sql(), { kind: 'render', workoutId: await createWorkout(PLAN), footageId: null })
  return (await claimJob('render'))!
}

/** Takes parts until there are none, as a worker does. */
async function workAt(maker: string): Promise<number> {
  const { chunksTask, claimJob, finishJob } = await parts()
  let done = 0
  for (let idle = 0; idle < 60;) {
    const job = await claimJob('chunks', [maker])
    if (!job) {
      idle++
      await new Promise((resolve) => setTimeout(resolve, 50))
      continue
    }
    idle = 0
    await finishJob(
      job,
      await chunksTask(job, { signal: new AbortController().signal, onShare: () => {}, attempt: job.claim }),
    )
    done++
  }
  return done
}

async function asking(signal = new AbortController().signal, encoder?: InHardware) {
  const { chunkKeys, picturePlan, renderParts } = await parts()
  const wanted = { ...picture, ...(encoder ? { encoder } : {}) }
  const plan = picturePlan(wanted)
  const keys = await chunkKeys(wanted, plan)
  const job = await renderJob()
  const shares: number[] = []
  const rows = rowsOf(plan.chunks, 1)
  const work = renderParts(job, rows, {
    picture: wanted,
    chunks: plan.chunks,
    signal,
    onProgress: (share) => shares.push(share),
  })
  return { job, keys, rows, shares, work }
}

describe('parts of a render', () => {
  it('are had by workers of the same program, each once, and are there under the keys of the whole', async () => {
    const { chunkStore, claimJob, programStamp, sql } = await parts()
    const { job, keys, rows, shares, work } = await asking()
    await expect
      .poll(() => sql()`select 1 from jobs where parent_id = ${job.id}`.then((all) => all.length), { timeout: 20_000 })
      .toBe(rows.length)
    expect(await claimJob('chunks', ['another program'])).toBeNull()
    await sql()`update jobs set attempts = 3 where id = ${job.id}`
    const [one, other] = await Promise.all([workAt(programStamp()), workAt(programStamp()), work])
    expect(one + other).toBe(rows.length)
    const store = chunkStore()
    expect(await Promise.all(keys.map((key) => store.has(key)))).toEqual(keys.map(() => true))
    expect(shares.at(-1)).toBe(1)
    // What gets on does not break off too often.
    expect(await sql()`select attempts from jobs where id = ${job.id}`).toEqual([{ attempts: 1 }])
    expect(await sql()`select 1 from jobs where parent_id = ${job.id}`).toHaveLength(0)
  })
  it('go with the whole when it is broken off, and whoever has one loses it', async () => {
    const { beat, claimJob, programStamp, sql } = await parts()
    const halt = new AbortController()
    const { job, work } = await asking(halt.signal)
    let taken = await claimJob('chunks', [programStamp()])
    while (!taken) taken = await claimJob('chunks', [programStamp()])
    expect(taken.part?.parentId).toBe(job.id)
    halt.abort()
    await expect(work).rejects.toThrow()
    expect(await beat(taken, 0.5)).toBe('lost')
    expect(await sql()`select 1 from jobs where parent_id = ${job.id}`).toHaveLength(0)
  })
  it('of a picture that hardware encodes are had by who has the same encoder alone', async () => {
    const { claimJob, makerOf, makersHere, programStamp } = await parts()
    const halt = new AbortController()
    const work = (await asking(halt.signal, 'h264_nvenc')).work.catch(() => undefined)
    let taken = await claimJob('chunks', [programStamp(), makerOf('h264_nvenc')])
    while (!taken) taken = await claimJob('chunks', [programStamp(), makerOf('h264_nvenc')])
    // This machine was asked for none.
    expect(await makersHere()).toEqual([programStamp()])
    expect(await claimJob('chunks', await makersHere())).toBeNull()
    expect(await claimJob('chunks', [makerOf('h264_vaapi')])).toBeNull()
    halt.abort()
    await work
  })
  it('fail the whole with what one of them failed for', async () => {
    const { claimJob, endJob, programStamp } = await parts()
    const { work } = await asking()
    const failing = expect(work).rejects.toMatchObject({ code: 'part-failed', message: 'The disk is full.' })
    let taken = await claimJob('chunks', [programStamp()])
    while (!taken) taken = await claimJob('chunks', [programStamp()])
    await endJob(taken, 'failed', 'The disk is full.')
    await failing
  })
  it('of two renders take turns: the one with fewer in hand comes first', async () => {
    const { claimJob, programStamp, sql } = await parts()
    const halt = new AbortController()
    const [long, short] = [await asking(halt.signal), await asking(halt.signal)]
    const works = [long.work, short.work].map((work) => work.catch(() => undefined))
    const both = long.rows.length + short.rows.length
    await expect
      .poll(() => sql()`select 1 from jobs where kind = 'chunks'`.then((all) => all.length), { timeout: 20_000 })
      .toBe(both)
    const taken = []
    for (let turn = 0; turn < 4; turn++) taken.push((await claimJob('chunks', [programStamp()]))?.part?.parentId)
    expect(taken).toEqual([long.job.id, short.job.id, long.job.id, short.job.id])
    halt.abort()
    await Promise.all(works)
  })
})
