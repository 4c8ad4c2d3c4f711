// Nothing acknowledged is lost: jobs and their claims, uploads and rows at every instant at which something can die.
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  statSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { beforeEach, describe, expect, it } from 'vitest'
import { QUICK_AAC, QUICK_PICTURE } from '../demo/quickFilm'
import { circuit, score } from '../src/core/testing'
import type { ClaimedJob } from '../src/server/jobs'
import type { TaskContext } from '../src/server/tasks/task'
import { startedDatabase } from './records'

const parts = async () => ({
  ...(await import('../src/server/db')),
  ...(await import('../src/server/workouts')),
  ...(await import('../src/server/jobs')),
  ...(await import('../src/server/footage')),
  ...(await import('../src/server/reel')),
  ...(await import('../src/server/store')),
  ...(await import('../src/server/match')),
  ...(await import('../src/server/tidy')),
  ...(await import('../src/server/tasks/prepare')),
  ...(await import('../src/server/progress')),
  ...(await import('../src/engine/contentHash')),
})
const home = startedDatabase(async () => {
  await (await import('../src/server/migrate')).migrate()
  mkdirSync(join(home, 'uploads'), { recursive: true })
  const clip = ['-f', 'lavfi', '-i', 'testsrc2=s=64x64:r=10:d=1', '-f', 'lavfi', '-i', 'sine=d=1', '-shortest']
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...clip, '-pix_fmt', 'yuv420p', join(home, 'clip.mp4')])
})

beforeEach(async () => {
  const { sql } = await parts()
  await sql()`delete from workouts`
})

const workout = async (): Promise<string> => (await parts()).createWorkout(score(circuit()))
async function renderJob(): Promise<{ workoutId: string; jobId: string }> {
  const { addJob, sql } = await parts()
  const workoutId = await workout()
  return { workoutId, jobId: (await addJob(sql(), { kind: 'render', workoutId, footageId: null })) ?? '' }
}
async function claimed(kind: 'prepare' | 'render' = 'render'): Promise<ClaimedJob> {
  const job = await (await parts()).claimJob(kind)
  if (!job) throw new Error('nothing waits')
  return job
}
const stateOf = async (id: string): Promise<unknown> =>
  (await (await parts()).sql()`select state, problem, attempts from jobs where id = ${id}`)[0]

describe('a claim', () => {
  it('is had by one of many who ask at once', async () => {
    const { claimJob } = await parts()
    await renderJob()
    const claims = await Promise.all(Array.from({ length: 6 }, () => claimJob('render')))
    expect(claims.filter(Boolean)).toHaveLength(1)
  })
  it('that was lost changes nothing: no beat, no end, no result', async () => {
    const { beat, endJob, finishJob, releaseJob } = await parts()
    const { jobId } = await renderJob()
    const first = await claimed()
    await releaseJob(first, true)
    const second = await claimed()
    expect(await beat(first, 0.9)).toBe('lost')
    await endJob(first, 'failed', 'late')
    let written = false
    const finish = finishJob(first, () => Promise.resolve(void (written = true)))
    await expect(finish).rejects.toMatchObject({ code: 'claim-lost' })
    expect([written, await stateOf(jobId)]).toEqual([false, { state: 'active', problem: null, attempts: 2 }])
    await finishJob(second)
    expect(await stateOf(jobId)).toMatchObject({ state: 'done' })
  })
  it("is put back, once, when its beats stand still by the watcher's own clock, and given up after four", async () => {
    const { Watch, beat } = await parts()
    const { jobId, workoutId } = await renderJob()
    for (let attempt = 1; attempt <= 4; attempt++) {
      const watch = new Watch()
      const job = await claimed()
      expect(await watch.look(0)).toEqual([])
      await beat(job, 0.1)
      expect(await watch.look(20_000)).toEqual([])
      expect(await watch.look(31_999)).toEqual([])
      expect(await watch.look(32_000)).toEqual([jobId])
      expect(await watch.look(99_000)).toEqual([])
    }
    expect(await stateOf(jobId)).toMatchObject({ state: 'failed', attempts: 4 })
    expect((await (await parts()).progressOf(workoutId)).jobs[0]?.problem).toMatch(/broke off several times/)
  })
  it('that is put back in good order is no attempt', async () => {
    const { releaseJob } = await parts()
    const { jobId } = await renderJob()
    for (let stop = 0; stop < 9; stop++) await releaseJob(await claimed(), false)
    expect(await stateOf(jobId)).toMatchObject({ state: 'queued', attempts: 0 })
  })
  it('keeps its lane: preparing waits for no render', async () => {
    const { addFootage } = await parts()
    for (let render = 0; render < 20; render++) await renderJob()
    const id = await addFootage({ workoutId: await workout(), name: 'a.mp4', bytes: 1, upload: 'u' })
    await claimed('render')
    expect(await claimed('prepare')).toMatchObject({ footageId: id })
  })
  it('is not queued twice while it lives, and again when it has ended', async () => {
    const { addJob, sql, finishJob } = await parts()
    const { workoutId } = await renderJob()
    const ask = () => addJob(sql(), { kind: 'render', workoutId, footageId: null })
    expect(await ask()).toBeNull()
    const job = await claimed()
    expect(await ask()).toBeNull()
    await finishJob(job)
    expect(await ask()).not.toBeNull()
  })
})

describe('a cancel', () => {
  it('is obeyed whenever it comes: while it waits, while it runs, as it ends, and whoever died', async () => {
    const { cancelJob, beat, finishJob, endJob, claimJob, releaseJob } = await parts()
    const waiting = await renderJob()
    await cancelJob(waiting.jobId)
    expect(await claimJob('render')).toBeNull()

    const running = await renderJob()
    const job = await claimed()
    expect(await beat(job, 0.2)).toBe('go-on')
    await cancelJob(running.jobId)
    expect(await beat(job, 0.3)).toBe('cancel')
    await endJob(job, 'cancelled')

    const ending = await renderJob()
    const late = await claimed()
    await cancelJob(ending.jobId)
    await expect(finishJob(late)).rejects.toMatchObject({ code: 'cancelled' })
    await endJob(late, 'cancelled')

    const orphan = await renderJob()
    const dead = await claimed()
    await cancelJob(orphan.jobId)
    await releaseJob(dead, true)
    for (const { jobId } of [waiting, running, ending, orphan])
      expect(await stateOf(jobId)).toMatchObject({ state: 'cancelled' })
  })
  it('of what is done changes nothing', async () => {
    const { cancelJob, finishJob } = await parts()
    const { jobId } = await renderJob()
    await finishJob(await claimed())
    await cancelJob(jobId)
    expect(await stateOf(jobId)).toMatchObject({ state: 'done' })
  })
  it('of preparing ends the waiting of the footage, which can be tried again and never hides a good one', async () => {
    const { addFootage, cancelJob, findFootage, prepareAgain, currentFootage, updateFootage, takeIntoReel, sql } =
      await parts()
    const workoutId = await workout()
    const good = await addFootage({ workoutId, name: 'good.mp4', bytes: 1, upload: 'good' })
    await updateFootage(good, { state: 'ready' })
    await takeIntoReel(good)
    const id = await addFootage({ workoutId, name: 'new.mp4', bytes: 1, upload: 'new' })
    const jobOf = async (footageId: string): Promise<string> =>
      String((await sql()`select id from jobs where footage_id = ${footageId} and state = 'queued'`)[0]?.id)
    await cancelJob(await jobOf(id))
    expect(await findFootage(id)).toMatchObject({
      state: 'failed',
      problem: expect.stringContaining('stopped') as string,
    })
    expect((await currentFootage(workoutId))?.id).toBe(good)
    await prepareAgain(id)
    expect(await findFootage(id)).toMatchObject({ state: 'preparing', problem: null })
    expect(await jobOf(id)).not.toBe('undefined')
    await expect(prepareAgain(id)).rejects.toMatchObject({ code: 'nothing-to-try' })
  })
})

/** An upload as the upload server leaves it: its bytes and the note beside them. */
function uploaded(name: string, workoutId: string, bytes = statSync(join(home, 'clip.mp4')).size): string {
  copyFileSync(join(home, 'clip.mp4'), join(home, 'uploads', name))
  const note = { id: name, size: bytes, offset: 0, metadata: { workoutId, filename: `${name}.mp4` } }
  writeFileSync(join(home, 'uploads', `${name}.json`), JSON.stringify(note))
  return name
}
const noteAge = (name: string): number => statSync(join(home, 'uploads', `${name}.json`)).ctimeMs
const context = (): TaskContext => ({
  signal: new AbortController().signal,
  onShare: () => {},
  attempt: `attempt-${Math.random()}`,
})
/** Prepares what waits, as the worker does. */
async function prepareNext(): Promise<void> {
  const { prepareTask, finishJob } = await parts()
  const job = await claimed('prepare')
  await finishJob(job, await prepareTask(job, context()))
}
const only = async (workoutId: string): Promise<{ id: string; state: string; hash: string | null }> => {
  const rows = await (await parts()).sql()<{ id: string; state: string; hash: string | null }[]>`
    select id, state, hash from footage where workout_id = ${workoutId}`
  expect(rows).toHaveLength(1)
  return rows[0] ?? { id: '', state: '', hash: null }
}

describe('an upload that is not what was sent', () => {
  it.each(['cut in half', 'with a byte changed'])('%s on the disk says so, and is no footage', async (damage) => {
    const { addFootage, prepareTask, endJob } = await parts()
    const workoutId = await workout()
    const upload = uploaded(`damaged-${damage.length}`, workoutId)
    const path = join(home, 'uploads', upload)
    const bytes = readFileSync(path)
    const sha256 = createHash('sha256').update(bytes).digest('hex')
    writeFileSync(`${path}.pieces`, `${JSON.stringify({ from: 0, bytes: bytes.length, sha256 })}\n`)
    if (damage === 'cut in half') truncateSync(path, bytes.length >> 1)
    else
      writeFileSync(path, Buffer.concat([bytes.subarray(0, 99), Buffer.of((bytes[99] ?? 0) ^ 1), bytes.subarray(100)]))
    await addFootage({ workoutId, name: 'a.mp4', bytes: bytes.length, upload })
    const job = await claimed('prepare')
    await expect(prepareTask(job, context())).rejects.toMatchObject({ code: 'upload-differs' })
    await endJob(job, 'failed', 'damaged')
  })
})

describe('an upload whose server died', () => {
  it('after its last byte and before its row becomes footage at the next start, once', async () => {
    const { matchRecords } = await parts()
    const workoutId = await workout()
    uploaded('gap-row', workoutId)
    expect((await matchRecords()).adopted).toHaveLength(1)
    expect((await matchRecords()).adopted).toHaveLength(0)
    await prepareNext()
    expect(await only(workoutId)).toMatchObject({ state: 'ready' })
    expect(existsSync(join(home, 'uploads', 'gap-row.json'))).toBe(false)
  })
  it('between its row and its job cannot have: they are written together, and a row that waits for nothing is queued', async () => {
    const { addFootage, matchRecords, sql } = await parts()
    const workoutId = await workout()
    const upload = uploaded('gap-job', workoutId)
    const ids = await Promise.all([1, 2, 3].map(() => addFootage({ workoutId, name: 'a.mp4', bytes: 1, upload })))
    expect(new Set(ids).size).toBe(1)
    expect(await sql()`select 1 from jobs where footage_id = ${ids[0] ?? ''}`).toHaveLength(1)
    // As an older Jivet left it.
    await sql()`delete from jobs`
    expect((await matchRecords()).queued).toEqual([ids[0]])
    await prepareNext()
    expect(await only(workoutId)).toMatchObject({ state: 'ready' })
  })
  it.each(['before the hash was noted', 'after the note', 'after the move'])(
    '%s is prepared all the same',
    async (when) => {
      const { addFootage, contentHash, updateFootage, moveIntoStore } = await parts()
      const workoutId = await workout()
      const upload = uploaded(`gap-${when.length}`, workoutId)
      const id = await addFootage({ workoutId, name: 'a.mp4', bytes: 1, upload })
      const path = join(home, 'uploads', upload)
      const hash = await contentHash(path)
      if (when !== 'before the hash was noted') await updateFootage(id, { hash })
      if (when === 'after the move') await moveIntoStore(path, hash)
      await prepareNext()
      expect(await only(workoutId)).toMatchObject({ state: 'ready', hash })
      expect(existsSync(path)).toBe(false)
    },
  )
  it('with its database, at the note, is prepared when both are back', async () => {
    const { addFootage, prepareTask, releaseJob, sql } = await parts()
    const workoutId = await workout()
    const upload = uploaded('gap-db', workoutId)
    const id = await addFootage({ workoutId, name: 'a.mp4', bytes: 1, upload })
    const job = await claimed('prepare')
    await sql()`alter table footage rename column hash to away`
    await expect(prepareTask(job, context())).rejects.toThrow()
    await sql()`alter table footage rename column away to hash`
    expect(existsSync(join(home, 'uploads', upload))).toBe(true)
    await releaseJob(job, true)
    await prepareNext()
    expect(await only(workoutId)).toMatchObject({ id, state: 'ready' })
  })
  it('in the middle stays an upload, to be gone on with', async () => {
    const { matchRecords } = await parts()
    uploaded('half', await workout(), 1_000_000)
    expect((await matchRecords()).adopted).toEqual([])
  })
})

describe('a hearing that was ended in the middle', () => {
  /** Six and a half minutes with a tone every twenty seconds: two pieces. */
  const longClip = (): string => {
    const file = join(home, 'long.mp4')
    const tones = "aevalsrc='0.3*sin(2*PI*1500*t)*lt(mod(t,20),0.3)':s=16000:d=390"
    const picture = 'color=c=gray:s=64x36:r=2:d=390'
    const inputs = ['-f', 'lavfi', '-i', picture, '-f', 'lavfi', '-i', tones]
    execFileSync('ffmpeg', ['-v', 'error', '-y', ...inputs, ...QUICK_PICTURE, ...QUICK_AAC, file])
    return file
  }
  it('goes on with the piece that it was in, and keeps captions', async () => {
    const { addFootage, prepareTask, releaseJob, heardPieces, heardSoFar, evidenceOf, saveCaptions, sql } =
      await parts()
    const workoutId = await workout()
    copyFileSync(longClip(), join(home, 'uploads', 'long'))
    const id = await addFootage({ workoutId, name: 'long.mp4', bytes: 1, upload: 'long' })
    const halt = new AbortController()
    const job = await claimed('prepare')
    const attempt = prepareTask(job, { ...context(), signal: halt.signal })
    await expect.poll(async () => (await heardPieces(id)).size, { timeout: 300_000, interval: 20 }).toBeGreaterThan(0)
    halt.abort()
    await attempt.then(
      () => {},
      () => {},
    )
    await releaseJob(job, true)
    // What was kept is told from what would be heard again.
    const mark = { kind: 'chirp', atMs: 1234, spreadMs: 1, strength: 1, code: 77 }
    const weak = { ...mark, atMs: 4321, strength: 0.2 }
    await sql()`update heard_pieces set evidence = ${sql().json([mark, weak])} where footage_id = ${id} and piece = 0`
    expect(await heardSoFar(id)).toMatchObject({ chirp: 1 })
    await prepareNext()
    const evidence = await evidenceOf(id)
    expect(evidence.filter(({ atMs }) => atMs < 300_000)).toEqual([mark, weak])
    expect(evidence.filter(({ kind, atMs }) => kind === 'beep' && atMs >= 300_000)).toHaveLength(5)
    expect((await heardPieces(id)).size).toBe(0)

    const caption = { kind: 'caption', word: 'work', text: 'and go', atMs: 5000, spreadMs: 300, strength: 0.8 } as const
    await saveCaptions(id, [caption])
    await sql()`update evidence set engine = 1`
    await sql()`insert into jobs (kind, workout_id, footage_id) values ('prepare', ${workoutId}, ${id})`
    await prepareNext()
    const again = await evidenceOf(id)
    expect(again.filter(({ kind }) => kind === 'caption')).toMatchObject([{ text: 'and go' }])
    expect(again.filter(({ kind }) => kind === 'beep')).toHaveLength(20)
    expect(await (await parts()).outdatedFootage()).toEqual([])
  })
})

describe('what came of an attempt', () => {
  it('is seen all at once, or not at all where the claim was lost meanwhile', async () => {
    const { addFootage, prepareTask, finishJob, releaseJob, findFootage, evidenceOf } = await parts()
    const workoutId = await workout()
    const id = await addFootage({ workoutId, name: 'a.mp4', bytes: 1, upload: uploaded('whole', workoutId) })
    const job = await claimed('prepare')
    const finish = await prepareTask(job, context())
    await releaseJob(job, true)
    await expect(finishJob(job, finish)).rejects.toMatchObject({ code: 'claim-lost' })
    expect(await findFootage(id)).toMatchObject({ state: 'preparing', facts: null, place: null })
    expect(await evidenceOf(id)).toEqual([])
  })
  it('a full disk while adding leaves the file and a way to go on', async () => {
    const { addFootage, endJob, findFootage, prepareAgain } = await parts()
    const workoutId = await workout()
    const id = await addFootage({ workoutId, name: 'a.mp4', bytes: 1, upload: uploaded('full', workoutId) })
    await endJob(await claimed('prepare'), 'failed', 'The disk is full.')
    expect(await findFootage(id)).toMatchObject({ state: 'failed', problem: 'The disk is full.' })
    await prepareAgain(id)
    await prepareNext()
    expect(await findFootage(id)).toMatchObject({ state: 'ready', problem: null })
  })
})

describe('tidying', () => {
  it('takes what was given up, after its time, and nothing that is named, waited for or new', async () => {
    const {
      tidy,
      keepBytes,
      addFootage,
      putAside,
      findFootage,
      updateFootage,
      scratchFolder,
      addJob,
      sql,
      UPLOAD_KEPT_MS,
      UNNAMED_KEPT_MS,
    } = await parts()
    const workoutId = await workout()
    const forgotten = await addFootage({ workoutId, name: 'notes.txt', bytes: 1, upload: 'notes' })
    await updateFootage(forgotten, { state: 'failed' })
    await putAside(forgotten)
    const named = await keepBytes(new TextEncoder().encode('named'))
    const unnamed = await keepBytes(new TextEncoder().encode('unnamed'))
    const id = await addFootage({ workoutId, name: 'a.mp4', bytes: 1, upload: uploaded('waited-for', workoutId) })
    await updateFootage(id, { hash: named })
    uploaded('given-up', workoutId, 1_000_000)
    await addJob(sql(), { kind: 'render', workoutId, footageId: null })
    const alive = (await claimed()).claim
    for (const name of ['left-behind', alive]) mkdirSync(join(scratchFolder(), name), { recursive: true })
    utimesSync(join(home, 'uploads', 'given-up'), 1, 1)

    const now = await tidy({ dry: true })
    expect(now.map(({ path }) => path)).toEqual([join(scratchFolder(), 'left-behind')])
    const aDayOn = Date.now() + UNNAMED_KEPT_MS + 1000
    const dry = await tidy({ dry: true, nowMs: aDayOn })
    const names = (found: typeof dry): string[] => found.map(({ path }) => path.split('/').at(-1) ?? '')
    expect(names(dry)).toEqual(expect.arrayContaining(['left-behind', unnamed]) as string[])
    expect(names(dry)).not.toContain(named)
    expect((await findFootage(forgotten)).state).toBe('failed')
    expect(existsSync(join(scratchFolder(), 'left-behind'))).toBe(true)

    await tidy({ nowMs: Date.now() + UPLOAD_KEPT_MS + 1000 })
    expect(readdirSync(scratchFolder())).toEqual([alive])
    await expect(findFootage(forgotten)).rejects.toMatchObject({ code: 'not-found' })
    const left = readdirSync(join(home, 'uploads'))
    expect(left).toEqual(expect.arrayContaining(['waited-for', 'waited-for.json']) as string[])
    expect(left).not.toContain('given-up')
    expect(left).not.toContain('given-up.json')
    expect(existsSync((await parts()).storedPath(named))).toBe(true)
    expect(existsSync((await parts()).storedPath(unnamed))).toBe(false)
  })

  it('leaves the note of an upload that goes on, however old the note is', async () => {
    const { tidy, UPLOAD_KEPT_MS } = await parts()
    uploaded('goes-on', await workout(), 1_000_000)
    await new Promise((done) => setTimeout(done, 1100))
    // A piece has come since.
    writeFileSync(join(home, 'uploads', 'goes-on'), 'more', { flag: 'a' })
    const between = (statSync(join(home, 'uploads', 'goes-on')).ctimeMs + noteAge('goes-on')) / 2
    await tidy({ nowMs: between + UPLOAD_KEPT_MS })
    expect(existsSync(join(home, 'uploads', 'goes-on.json'))).toBe(true)
  })
})
