// The server's records against a real PostgreSQL: revisions, stitches, jobs that die and come back.
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync, mkdirSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { moveSchema } from '../src/core/score/move'
import { readShorthand } from '../src/core/shorthand/read'
import { circuit, score, talk } from '../src/core/testing'

const home = mkdtempSync(join(tmpdir(), 'jivet-db-'))
let stop = (): void => {}

beforeAll(async () => {
  const machine = (await import('../scripts/machine.mjs' as string)) as {
    startDatabase: (home: string) => Promise<{ url: string; stop: () => void }>
  }
  const database = await machine.startDatabase(home)
  process.env.DATABASE_URL = database.url
  process.env.JIVET_HOME = home
  stop = database.stop
})
afterAll(async () => {
  const { sql } = await import('../src/server/db')
  await sql().end()
  stop()
  rmSync(home, { recursive: true, force: true })
})

const parts = async () => ({
  ...(await import('../src/server/db')),
  ...(await import('../src/server/migrate')),
  ...(await import('../src/server/workouts')),
  ...(await import('../src/server/stitches')),
  ...(await import('../src/server/jobs')),
  ...(await import('../src/server/footage')),
  ...(await import('../src/server/store')),
  ...(await import('../src/server/progress')),
  ...(await import('../src/server/packs')),
  ...(await import('../src/server/moves')),
})

describe('migrations', () => {
  it('run once each, also when two start at the same moment', async () => {
    const { migrate } = await parts()
    const runs = await Promise.all([migrate(), migrate()])
    expect(runs.flat()).toEqual(['001_workouts.sql', '002_moves.sql'])
    expect(await migrate()).toEqual([])
  })
})

describe('moves', () => {
  const punt = moveSchema.parse({ name: 'Punt push', secondsPerRep: 2.4, muscles: ['grip'], gear: ['pole'] })
  const typed = (title: string) => ({
    ...readShorthand('circuit Main: 1 round, 40 on\n  Punt push; Squat (from 2 punt push)\n').score,
    title,
    moves: [punt],
  })

  it('come back as they were saved, one by one name whatever its capitals', async () => {
    const { saveMove, listMoves, removeMove } = await parts()
    await saveMove({ move: punt, was: null, changePublished: false })
    expect(await listMoves()).toEqual([punt])
    await expect(
      saveMove({ move: { ...punt, name: 'PUNT push' }, was: null, changePublished: false }),
    ).rejects.toMatchObject({ code: 'conflict' })
    await removeMove('punt PUSH')
    await expect(removeMove('punt push')).rejects.toMatchObject({ code: 'not-found' })
    expect(await listMoves()).toEqual([])
  })
  it('change in the workouts that use them; published ones keep the old text unless told otherwise', async () => {
    const { saveMove, usesOfMove, createWorkout, findWorkout, addPack, createJob } = await parts()
    await saveMove({ move: punt, was: null, changePublished: false })
    const draft = await createWorkout(typed('Draft')),
      published = await createWorkout(typed('Published')),
      other = await createWorkout(score(circuit()))
    await addPack({
      workoutId: published,
      jobId: await createJob('render', published, null),
      title: 'Published',
      videoHash: 'x',
      videoBytes: 1,
      captions: '',
      chapters: '',
    })
    expect((await usesOfMove('punt push')).map(({ title, published: out }) => [title, out]).sort()).toEqual([
      ['Draft', false],
      ['Published', true],
    ])

    const quant = { ...punt, name: 'Quant push', cue: 'long and low' }
    await saveMove({ move: quant, was: 'Punt push', changePublished: false })
    expect((await findWorkout(draft)).score).toMatchObject({
      moves: [quant],
      sections: [
        { stations: [{ label: 'Quant push' }, { label: 'Squat', swaps: [{ from: 2, label: 'Quant push' }] }] },
      ],
    })
    expect((await findWorkout(published)).score).toMatchObject({
      moves: [punt],
      sections: [{ stations: [{ label: 'Punt push' }, {}] }],
    })
    expect((await findWorkout(other)).scoreRevision).toBe(1)

    await saveMove({ move: { ...quant, cue: 'lower still' }, was: 'Quant push', changePublished: true })
    expect((await findWorkout(draft)).score.moves).toMatchObject([{ cue: 'lower still' }])
    await saveMove({ move: { ...punt, cue: 'hand over hand' }, was: 'Punt push', changePublished: true })
    expect((await findWorkout(published)).score.moves).toMatchObject([{ name: 'Punt push', cue: 'hand over hand' }])
  })
  it('change all of it or nothing', async () => {
    const { saveMove, listMoves, sql } = await parts()
    const before = await listMoves()
    await expect(
      saveMove({ move: { ...punt, name: 'Quant push' }, was: 'Punt push', changePublished: true }),
    ).rejects.toMatchObject({ code: 'conflict' })
    expect(await listMoves()).toEqual(before)
    await sql()`delete from moves`
  })
})

describe('workouts', () => {
  it('are saved over the revision they were made from, and never over another', async () => {
    const { createWorkout, saveScore, findWorkout } = await parts()
    const id = await createWorkout(score(circuit()))
    expect(await saveScore(id, score(circuit(), talk('bye', null)), 1)).toBe(2)
    await expect(saveScore(id, score(), 1)).rejects.toMatchObject({ code: 'stale' })
    expect(await findWorkout(id)).toMatchObject({
      scoreRevision: 2,
      score: { sections: [{ key: 'main' }, { key: 'bye', guessMs: null }] },
    })
  })
  it('let exactly one of many saves from the same revision through', async () => {
    const { createWorkout, saveScore } = await parts()
    const id = await createWorkout(score())
    const results = await Promise.allSettled(
      Array.from({ length: 8 }, (_, index) => saveScore(id, score(talk(`t${index}`, 1000)), 1)),
    )
    expect(results.filter((one) => one.status === 'fulfilled')).toHaveLength(1)
  })
  it('come off the shelf and back, with nothing erased', async () => {
    const { createWorkout, listWorkouts, setRemoved, findWorkout } = await parts()
    const id = await createWorkout(score(circuit()))
    await setRemoved(id, true)
    expect((await listWorkouts()).map((one) => one.id)).not.toContain(id)
    await expect(findWorkout(id)).rejects.toMatchObject({ code: 'not-found' })
    await setRemoved(id, false)
    expect((await findWorkout(id)).score.sections).toHaveLength(1)
  })
})

describe('stitches', () => {
  it('are saved whole, in order of time, with a revision of their own', async () => {
    const { createWorkout, saveStitches, listStitches } = await parts()
    const id = await createWorkout(score(circuit()))
    const tie = (segmentId: string, footageMs: number) => ({
      segmentId,
      edge: 'start' as const,
      footageMs,
      confidence: 0.97,
      evidence: ['beep' as const],
    })
    expect(await saveStitches(id, [tie('b', 2000), tie('a', 1000)], 1)).toBe(2)
    expect((await listStitches(id)).map((one) => one.segmentId)).toEqual(['a', 'b'])
    await expect(saveStitches(id, [], 1)).rejects.toMatchObject({ code: 'stale' })
    expect(await listStitches(id)).toHaveLength(2)
    await saveStitches(id, [], 2)
    expect(await listStitches(id)).toEqual([])
  })
})

describe('jobs', () => {
  const fresh = async () => {
    const all = await parts()
    const id = await all.createWorkout(score(circuit()))
    return { ...all, workoutId: id, jobId: await all.createJob('render', id, null) }
  }
  it('are claimed once, however often they are delivered', async () => {
    const { claimJob, jobId } = await fresh()
    const claims = await Promise.all([claimJob(jobId), claimJob(jobId), claimJob(jobId)])
    expect(claims.filter(Boolean)).toHaveLength(1)
  })
  it('are queued again when their worker has fallen silent, and given up after four attempts', async () => {
    const { claimJob, recoverJobs, recentJobs, sql, jobId, workoutId } = await fresh()
    const fallSilent = (): Promise<unknown> =>
      sql()`update jobs set heartbeat_at = now() - interval '1 minute' where id = ${jobId}`.execute()
    for (let attempt = 1; attempt <= 3; attempt++) {
      expect(await claimJob(jobId)).not.toBeNull()
      expect(await recoverJobs()).not.toContain(jobId)
      await fallSilent()
      expect(await recoverJobs()).toContain(jobId)
    }
    await claimJob(jobId)
    await fallSilent()
    expect(await recoverJobs()).not.toContain(jobId)
    expect((await recentJobs(workoutId))[0]).toMatchObject({
      state: 'failed',
      problem: expect.stringContaining('broke off several times') as string,
    })
  })
  it('end at once when they are cancelled before anybody took them', async () => {
    const { cancelJob, claimJob, recentJobs, jobId, workoutId } = await fresh()
    await cancelJob(jobId)
    expect(await claimJob(jobId)).toBeNull()
    expect((await recentJobs(workoutId))[0]?.state).toBe('cancelled')
  })
  it('tell the page how far they are', async () => {
    const { claimJob, reportShare, endJob, progressOf, jobId, workoutId } = await fresh()
    const job = await claimJob(jobId)
    await reportShare(job!, 0.5)
    expect((await progressOf(workoutId)).jobs).toMatchObject([{ kind: 'render', state: 'active', share: 0.5 }])
    await endJob(job!, 'failed', 'The disk is full.')
    expect((await progressOf(workoutId)).jobs).toMatchObject([
      { state: 'failed', problem: 'The disk is full.', leftMs: null },
    ])
  })
})

describe('footage', () => {
  it('is recorded once per upload, and a failed one never hides a good one', async () => {
    const { createWorkout, addFootage, updateFootage, currentFootage, progressOf } = await parts()
    const id = await createWorkout(score())
    const good = await addFootage(id, 'deck.mp4', 1000, 'upload-1')
    expect(await addFootage(id, 'deck.mp4', 1000, 'upload-1')).toBe(good)
    await updateFootage(good, { state: 'ready', beeps: [{ atMs: 1.5, hz: 2000, durationMs: 80, strength: 0.5 }] })
    const bad = await addFootage(id, 'note.txt', 10, 'upload-2')
    await updateFootage(bad, { state: 'failed', problem: 'This is not a video.' })
    expect((await currentFootage(id))?.id).toBe(good)
    expect((await progressOf(id)).failedUpload).toEqual({ name: 'note.txt', problem: 'This is not a video.' })
    const { beepsOf } = await parts()
    expect(await beepsOf(good)).toEqual([{ atMs: 1.5, hz: 2000, durationMs: 80, strength: 0.5 }])
  })
})

describe('the store', () => {
  it('keeps a file once, by its content, and leaves no second copy', async () => {
    const { keepFile, keepBytes, storedPath, storedSize } = await parts()
    const path = join(home, 'one.bin')
    writeFileSync(path, 'kettle')
    const hash = await keepFile(path)
    expect(existsSync(path)).toBe(false)
    expect(await keepBytes(new TextEncoder().encode('kettle'))).toBe(hash)
    expect(readFileSync(storedPath(hash), 'utf8')).toBe('kettle')
    expect(await storedSize(hash)).toBe(6)
  })
  it('clears a job folder before and after, also when the work fails', async () => {
    const { withJobFolder } = await parts()
    const left = join(home, 'scratch', 'job-1')
    mkdirSync(left, { recursive: true })
    writeFileSync(join(left, 'old'), '')
    await expect(
      withJobFolder('job-1', async (folder) => {
        expect(existsSync(join(folder, 'old'))).toBe(false)
        throw new Error('broke')
      }),
    ).rejects.toThrow('broke')
    expect(existsSync(left)).toBe(false)
  })
  it('names a full disk, whoever reports it', async () => {
    const { knownProblem } = await parts()
    expect(knownProblem(Object.assign(new Error(), { code: 'ENOSPC' }))).toMatchObject({ code: 'disk-full' })
    expect(knownProblem(Object.assign(new Error(), { code: '53100' }))).toMatchObject({ code: 'disk-full' })
  })
})
